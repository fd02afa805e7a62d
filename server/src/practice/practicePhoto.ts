import { type PracticeSupplyCard, photoLimits } from "@pale-cap/contract";
import sharp from "sharp";
import { drawPhoto } from "../database/demo/drawPhoto";

/** A photo of a practice supply's board, drawn from what stands on it. */
export async function drawPracticePhoto({ board: { board, places } }: PracticeSupplyCard) {
  const image = await drawPhoto(
    {
      board: { ...board, barrierMetres: board.barrierMetres },
      capacitors: places.flatMap(({ at, capacitor, place }) =>
        capacitor
          ? [
              {
                at,
                can: [
                  capacitor.diameterMetres * 1e3,
                  capacitor.heightMetres * 1e3,
                  capacitor.pitchMetres * 1e3,
                ] as const,
                place: [place[0] * 1e3, place[1] * 1e3] as const,
                stripeDegrees: 90,
              },
            ]
          : [],
      ),
      outlines: places.flatMap(({ at, kind, outline, place: [x, y] }) =>
        outline
          ? [
              [
                at,
                kind,
                (x - outline[0] / 2) * 1e3,
                (y - outline[1] / 2) * 1e3,
                outline[0] * 1e3,
                outline[1] * 1e3,
              ] as const,
            ]
          : [],
      ),
      looked: {},
    },
    "board_top",
  );
  const { width = 0, height = 0 } = await sharp(image).metadata();
  const thumbnail = await sharp(image).resize({ width: photoLimits.thumbnailSidePixels }).jpeg().toBuffer();
  return { image, thumbnail, widthPixels: width, heightPixels: height };
}
