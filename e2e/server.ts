// A server of the real program for each test, with a database of its own.
import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import AxeBuilder from '@axe-core/playwright';
import { test as base, expect, type Page } from '@playwright/test';

export const program = process.env.BOFTA_PROGRAM ?? '../target/debug/bofta';

export class Server {
  private child: ChildProcess | null = null;
  address = '';

  constructor(
    private readonly command: 'serve' | 'demo',
    readonly folder: string,
  ) {}

  get database(): string {
    return join(this.folder, 'bofta.db');
  }

  /** Starts it; after the first time on the same address. */
  async start(): Promise<void> {
    const listen = this.address ? new URL(this.address).host : '127.0.0.1:0';
    const child = spawn(program, [this.command, '--listen', listen, '--data', this.folder]);
    this.child = child;
    this.address = await new Promise((resolve, reject) => {
      child.stdout?.on('data', (text) => resolve(String(text).trim().split(' ').at(-1) ?? ''));
      child.on('exit', (code) => reject(new Error(`the program ended with ${code}`)));
    });
  }

  /** SIGKILL: nothing is finished or put away. */
  kill(): Promise<void> {
    return this.stop('SIGKILL');
  }

  /** SIGTERM: it ends in order. */
  end(): Promise<void> {
    return this.stop('SIGTERM');
  }

  private async stop(signal: NodeJS.Signals): Promise<void> {
    const child = this.child;
    if (!child || child.exitCode !== null) return;
    const ended = new Promise((resolve) => child.on('exit', resolve));
    child.kill(signal);
    await ended;
  }
}

interface Fixtures {
  serve: Server;
  demo: Server;
}

const fixture =
  (command: 'serve' | 'demo') =>
  // biome-ignore lint/correctness/noEmptyPattern: Playwright reads the fixtures from the pattern
  async ({}, use: (server: Server) => Promise<void>) => {
    const folder = mkdtempSync(join(tmpdir(), 'bofta-'));
    const server = new Server(command, folder);
    await server.start();
    await use(server);
    await server.kill();
    rmSync(folder, { recursive: true, force: true });
  };

export const test = base.extend<Fixtures>({ serve: fixture('serve'), demo: fixture('demo') });
export { expect };

/** No accessibility fault that axe can find on the page as it is. */
export async function accessible(page: Page): Promise<void> {
  const { violations } = await new AxeBuilder({ page }).analyze();
  const said = violations.map((v) => `${v.id}: ${v.help} (${v.nodes.map((n) => n.target).join(', ')})`);
  expect(said).toEqual([]);
}

/** Types into a field and leaves it. */
export async function type(page: Page, label: string | RegExp, value: string): Promise<void> {
  const field = page.getByLabel(label, { exact: true });
  await field.fill(value);
  await field.press('Enter');
}

/** Goes to a stage by its stretch of the tape. */
export async function go(page: Page, stage: string): Promise<void> {
  await page
    .getByRole('navigation', { name: 'Stages of the work' })
    .getByRole('link', { name: new RegExp(`^${stage} `) })
    .click();
  await expect(page).toHaveURL(new RegExp(`/${stage.toLowerCase()}`));
}
