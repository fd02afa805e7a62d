import { By, error, Key, type WebDriver, type WebElement } from "selenium-webdriver";
import { devTools } from "./browser";

/** Long enough for a machine that has much else to do; nothing waits longer than it must. */
const patience = 90_000;

/** The interface as a person finds their way in it: by label, role and text, waiting on what appears. */
export class Page {
  constructor(
    readonly driver: WebDriver,
    readonly address: string,
  ) {}

  /** @param address another than the server's, for a page of nobody */
  async open(path: string, address = this.address): Promise<void> {
    await this.driver.get(address + path);
  }

  /** Another address of the page that is open, as a link goes there: nothing is loaded anew. */
  async go(path: string): Promise<void> {
    await this.driver.executeScript(
      "history.pushState(null, '', arguments[0]); dispatchEvent(new PopStateEvent('popstate'));",
      path,
    );
  }

  /** Until it is loaded anew the page gets no answer to what it asks under such an address. */
  async leaveUnanswered(address: string): Promise<void> {
    await this.driver.executeScript(
      `const [unanswered] = arguments;
       const ask = window.fetch;
       window.fetch = (what, ...rest) =>
         String(what.url ?? what).includes(unanswered) ? new Promise(() => {}) : ask(what, ...rest);`,
      address,
    );
  }

  /** An input by its label or its accessible name, exactly or by its beginning. */
  field(label: string): Promise<WebElement> {
    return this.find(`field "${label}"`, () =>
      this.driver.executeScript<WebElement | null>(
        `const wanted = arguments[0];
         const fits = (text) => text && (text.trim() === wanted || text.trim().startsWith(wanted));
         const named = [...document.querySelectorAll("input, textarea, select")].find((one) => fits(one.getAttribute("aria-label")));
         if (named) return named;
         const label = [...document.querySelectorAll("label")].find((one) => fits(one.textContent));
         return label ? label.control : null;`,
        label,
      ),
    );
  }

  /** A button, link or part of the board by its accessible name or text. */
  control(name: string): Promise<WebElement> {
    return this.find(`control "${name}"`, () =>
      this.driver.executeScript<WebElement | null>(
        `const wanted = arguments[0];
         const all = [...document.querySelectorAll("button, a, [role=button], summary")].filter((one) => !one.disabled);
         const nameOf = (one) => (one.getAttribute("aria-label") ?? one.textContent ?? "").replace(/\\s+/g, " ").trim();
         return all.find((one) => nameOf(one) === wanted) ?? all.find((one) => nameOf(one).startsWith(wanted)) ?? null;`,
        name,
      ),
    );
  }

  async click(name: string): Promise<void> {
    await this.reach(`click "${name}"`, async () => {
      const element = await this.control(name);
      // Parts of the drawing are SVG: the driver's own click aims at a middle that a label may cover.
      await this.driver.executeScript(
        "arguments[0].click ? arguments[0].click() : arguments[0].dispatchEvent(new MouseEvent('click', { bubbles: true }))",
        element,
      );
    });
  }

  /** All at once, as from the clipboard. */
  async paste(label: string, text: string): Promise<void> {
    await this.reach(`paste into "${label}"`, async () => {
      await (await this.field(label)).sendKeys(Key.chord(Key.CONTROL, "a"));
      if (text !== "") await devTools(this.driver).sendDevToolsCommand("Input.insertText", { text });
    });
  }

  /** All but its last letter as from the clipboard, that one by its key: a page draws at each key. */
  async fill(label: string, text: string): Promise<void> {
    const hasKeys = /[\ue000-\uf8ff]/.test(text);
    if (!hasKeys) await this.paste(label, text.slice(0, -1));
    await this.reach(`type into "${label}"`, async () => {
      const keys = hasKeys ? [Key.chord(Key.CONTROL, "a"), text] : [text.slice(-1)];
      await (await this.field(label)).sendKeys(...keys);
    });
  }

  /** One of several radio buttons by its label; their inputs have no size, so the click goes to them directly. */
  async switchTo(label: string): Promise<void> {
    await this.reach(`switch to "${label}"`, async () => {
      await this.driver.executeScript("arguments[0].click()", await this.field(label));
    });
  }

  async choose(label: string, option: string): Promise<void> {
    await this.reach(`choose "${option}" under "${label}"`, async () => {
      const element = await this.field(label);
      for (const one of await element.findElements(By.css("option"))) {
        if ((await one.getText()) === option) return one.click();
      }
      throw new Error(`No option "${option}" under "${label}"`);
    });
  }

  /** Keys to whatever has the focus, as a hand on the keyboard sends them. */
  async press(...keys: string[]): Promise<void> {
    await this.driver
      .actions()
      .sendKeys(...keys)
      .perform();
  }

  async chord(modifier: string, key: string): Promise<void> {
    await this.driver.actions().keyDown(modifier).sendKeys(key).keyUp(modifier).perform();
  }

  /** Alt and a digit: the lens of that rung, until its heading stands there. */
  async lens(number: number, heading: string): Promise<void> {
    await this.chord(Key.ALT, String(number));
    await this.see(heading);
  }

  /** Waits until the text can be read on the page. */
  async see(text: string): Promise<void> {
    await this.until(`see "${text}"`, async () => (await this.text()).includes(text));
  }

  /** @param selector what is to be gone from the page */
  async seeNone(selector: string): Promise<void> {
    await this.until(`no longer find ${selector}`, () =>
      this.driver.executeScript<boolean>("return document.querySelector(arguments[0]) === null", selector),
    );
  }

  async seeNot(text: string): Promise<void> {
    await this.until(`no longer see "${text}"`, async () => !(await this.text()).includes(text));
  }

  /** Waits until a control's accessible name contains a text. */
  async seeNamed(text: string): Promise<void> {
    await this.until(`find something named "${text}"`, () =>
      this.driver.executeScript<boolean>(
        `const pieces = arguments[0].split(", ");
         const nameOf = (one) => (one.getAttribute("aria-label") ?? one.textContent ?? "").replace(/\\s+/g, " ");
         // The pieces in their order; what is only sometimes in a name may stand between them.
         const says = (name) => pieces.reduce((from, piece) => {
           const at = from < 0 ? -1 : name.indexOf(piece, from);
           return at < 0 ? -1 : at + piece.length;
         }, 0) >= 0;
         return [...document.querySelectorAll("[aria-label], a, button")].some((one) => says(nameOf(one)));`,
        text,
      ),
    );
  }

  /** All text of the page, with every kind of space as one plain space. */
  async text(): Promise<string> {
    const raw = await this.driver.executeScript<string>("return document.body.innerText");
    return raw.replace(/[\s\u00a0\u202f]+/g, " ");
  }

  async until(what: string, condition: () => Promise<boolean>): Promise<void> {
    try {
      await this.driver.wait(condition, patience);
    } catch (error) {
      throw new Error(`Waited in vain to ${what}. The page reads: ${(await this.text()).slice(0, 1500)}`, {
        cause: error,
      });
    }
  }

  /** Finds and does one thing; once more where the page was drawn anew between the two. */
  private async reach(what: string, act: () => Promise<void>): Promise<void> {
    await this.until(what, async () => {
      try {
        await act();
        return true;
      } catch (failure) {
        if (failure instanceof error.StaleElementReferenceError) return false;
        throw failure;
      }
    });
  }

  private async find(what: string, look: () => Promise<WebElement | null>): Promise<WebElement> {
    let found: WebElement | null = null;
    await this.until(`find ${what}`, async () => {
      found = await look();
      return found !== null;
    });
    return found as unknown as WebElement;
  }
}
