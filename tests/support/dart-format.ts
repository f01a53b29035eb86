import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { chromium, type Browser, type Page } from 'playwright-core';
// @ts-expect-error -- plain JavaScript, shared with the scripts
import { chromiumFlags, chromiumPath } from '../../scripts/browser.mjs';
import { root } from './trees.js';

/** Dart's own formatter. It is WebAssembly that this Node cannot run and a browser can. */
export class DartFormat {
  private constructor(
    private readonly browser: Browser,
    private readonly page: Page,
  ) {}

  static async start(): Promise<DartFormat> {
    const browser = await chromium.launch({
      executablePath: chromiumPath as string,
      args: chromiumFlags as string[],
    });
    const page = await browser.newPage();
    const folder = join(root, 'node_modules', '@wasm-fmt', 'dart_fmt');
    await page.route('http://format.example/**', (route) => {
      const name = new URL(route.request().url()).pathname.slice(1);
      if (name === '') return route.fulfill({ contentType: 'text/html', body: '<title>format</title>' });
      const contentType = name.endsWith('.wasm') ? 'application/wasm' : 'text/javascript';
      return route.fulfill({ contentType, body: readFileSync(join(folder, name)) });
    });
    await page.goto('http://format.example/');
    return new DartFormat(browser, page);
  }

  /** The text as the formatter leaves it; what it cannot parse is an error. */
  format(text: string): Promise<string> {
    // A text, so that the import is the browser's own.
    return this.page.evaluate(
      `import('/dart_fmt_web.js').then(async (module) => {
        await module.default();
        return module.format(${JSON.stringify(text)}, 'placebook.dart');
      })`,
    );
  }

  stop(): Promise<void> {
    return this.browser.close();
  }
}
