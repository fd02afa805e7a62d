import { path, type ReportBlock, type ReportDocument, routes } from "@pale-cap/contract";
import { CurveChart } from "../../drawing/CurveChart";
import { PhotoMarkShape } from "../../drawing/PhotoMarkShape";
import { TableHead } from "../../ui/TableHead";
import text from "../../ui/text.module.css";
import classes from "./report.module.css";

/** A report as its document says, block by block: what is on the screen is what the paper says. */
export function ReportSheet({ report }: { readonly report: ReportDocument }) {
  return (
    <article className={classes.sheet} data-paper data-audience={report.audience}>
      <header className={classes.head}>
        <svg viewBox="0 0 44 44" width="44" height="44" aria-hidden="true">
          <circle cx="22" cy="22" r="19" fill="var(--sleeve)" stroke="var(--ink)" strokeWidth="2.4" />
          <path d="M30.6 5a19 19 0 0 1 0 34z" fill="var(--ink)" />
        </svg>
        <div>
          <h1>{report.title}</h1>
          <div>{report.device}</div>
        </div>
        <dl className={classes.dates}>
          {report.dates.map(([name, words]) => (
            <div key={name}>
              <dt>{name}</dt>
              <dd>{words}</dd>
            </div>
          ))}
        </dl>
      </header>
      {report.notices.map((one) => (
        <p key={one} role="note" className={classes.notice}>
          {one}
        </p>
      ))}
      {report.blocks.map((block, n) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: a document is drawn once, in its order
        <Block key={n} block={block} />
      ))}
      {report.foot && <footer className={classes.foot}>{report.foot}</footer>}
    </article>
  );
}

function Block({ block }: { readonly block: ReportBlock }) {
  switch (block.kind) {
    case "heading":
      return <h2>{block.words}</h2>;
    case "text":
      return <p className={block.tone && toneClasses[block.tone]}>{block.words}</p>;
    case "list":
      return (
        <ul>
          {block.items.map((one, n) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: two lines may read the same
            <li key={n}>{one}</li>
          ))}
        </ul>
      );
    case "table":
      return <Table block={block} />;
    case "chart":
      return (
        <CurveChart
          label={block.name}
          x={{ name: block.x, unit: "" }}
          y={{ name: block.y, unit: "" }}
          lines={block.lines}
          limits={block.limits}
          isDense={block.lines.some((one) => one.points.length > 40)}
        />
      );
    case "photo":
      return <Photo block={block} />;
  }
}

const toneClasses = { dim: text.dim, warning: classes.warning } as const;

function Table({ block }: { readonly block: Extract<ReportBlock, { kind: "table" }> }) {
  const figures = new Set(block.figures);
  return (
    <table className={`${text.table} ${classes.table}`} aria-label={block.name}>
      <TableHead names={block.heads} />
      <tbody>
        {block.rows.map((row, n) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: two rows may read the same
          <tr key={n}>
            {row.map((cell, column) => {
              const props = { className: figures.has(column) ? classes.money : undefined, children: cell };
              // biome-ignore lint/suspicious/noArrayIndexKey: columns stay where they are
              return column === 0 ? <th key={column} scope="row" {...props} /> : <td key={column} {...props} />;
            })}
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Photo({ block }: { readonly block: Extract<ReportBlock, { kind: "photo" }> }) {
  const { photoId, caption, widthPixels, heightPixels, marks } = block;
  return (
    <figure className={classes.photo}>
      <svg viewBox={`0 0 ${widthPixels} ${heightPixels}`} role="img" aria-label={caption}>
        <image href={path(routes.photoImage, { photoId })} width={widthPixels} height={heightPixels} />
        {marks.map((mark) => (
          <PhotoMarkShape key={mark.id} mark={mark} size={[widthPixels, heightPixels]} />
        ))}
      </svg>
      <figcaption className={text.soft}>{caption}</figcaption>
    </figure>
  );
}
