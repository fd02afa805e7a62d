import { expect, it } from "vitest";
import { keepingWords, untilThenWords } from "./keepingWords";

const [kept, onItsWay] = [{ isKept: true }, { isKept: false }];

it("says that entries are kept only once each is written down, and to stay on the page until then", () => {
  const stay = "This computer does not keep all of it yet: stay on this page until";
  expect(keepingWords([kept, onItsWay], false)).toBe(`${stay} the server has them.`);
  expect(keepingWords([onItsWay], false)).toBe(`${stay} the server has them.`);
  expect(keepingWords([kept], false)).toBe("It is kept on this computer and sent when it does.");
  expect(keepingWords([kept, kept], false)).toMatch(/^They are kept/);
  expect(keepingWords([kept, onItsWay], true)).toMatch(/^Nothing is kept on this computer: stay/);
  expect(untilThenWords([kept, onItsWay], false)).toBe(`${stay} then.`);
  expect(untilThenWords([kept], false)).toBe("Until then this computer keeps what was entered.");
  expect(untilThenWords([kept], true)).toMatch(/^Nothing is kept/);
});
