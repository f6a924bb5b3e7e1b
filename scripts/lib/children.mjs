import { spawn } from 'node:child_process';
import {
  createWriteStream,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import net from 'node:net';
import path from 'node:path';
import { Fault } from './say.mjs';

export const wait = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

const alive = (pid) => {
  try {
    process.kill(pid, 0);
    return true;
  } catch {
    return false;
  }
};

export const listening = (port) =>
  new Promise((resolve) => {
    const socket = net.connect(port, '127.0.0.1');
    socket.on('connect', () => (socket.destroy(), resolve(true)));
    socket.on('error', () => resolve(false));
  });

/** Refuses to begin where another program holds a port that is needed. */
export async function checkPorts(ports) {
  for (const [name, port] of Object.entries(ports))
    if (await listening(port))
      throw new Fault(
        `Port ${port} (${name}) is in use by another program. Stop that program, or set NB_PORT to another number.`,
      );
}

/** A program that has run for so long did start. */
const LIVED_MS = 3000;

/** The programs that make up the product: started in order, started again when one dies, ended in reverse order. */
export class Children {
  #children = [];
  /** Once it is asked for: asked again meanwhile it is the same ending, and waited for. */
  #ending = null;

  constructor(dataDir) {
    this.runDir = path.join(dataDir, 'run');
    this.logDir = path.join(dataDir, 'log');
    mkdirSync(this.runDir, { recursive: true });
    mkdirSync(this.logDir, { recursive: true });
  }

  /** Refuses a second start on the same data, and ends what a killed start left behind. */
  async takeOver() {
    const own = path.join(this.runDir, 'start.pid');
    const other = existsSync(own) ? Number(readFileSync(own, 'utf8')) : 0;
    if (other && other !== process.pid && alive(other) && this.#isOurs(other, 'start.mjs'))
      throw new Fault(
        `Nimble Bell is running on this data already (process ${other}). Stop it first, or set NB_DATA to another folder.`,
      );
    for (const name of readdirSync(this.runDir).filter((n) => n.endsWith('.pid') && n !== 'start.pid')) {
      const pid = Number(readFileSync(path.join(this.runDir, name), 'utf8'));
      if (pid && alive(pid) && this.#isOurs(pid, path.basename(name, '.pid'))) await end(pid);
      rmSync(path.join(this.runDir, name));
    }
    writeFileSync(own, String(process.pid));
  }

  /** A process id is used again after a while: only one whose command line is of this data, or of ours, is touched. */
  #isOurs(pid, name) {
    try {
      const line = readFileSync(`/proc/${pid}/cmdline`, 'utf8');
      return (
        line.includes(path.dirname(this.runDir)) || line.includes(`/${name}`) || line.includes('server/dist')
      );
    } catch {
      return false;
    }
  }

  /** Starts a program and waits until its port listens. */
  async start(name, command, args, { port, env = {}, seconds = 30 }) {
    const child = { name, command, args, env, port, process: null, deaths: 0, quickDeaths: 0, since: 0 };
    this.#children.push(child);
    this.#spawn(child);
    for (const until = Date.now() + seconds * 1000; Date.now() < until; await wait(40)) {
      if (await listening(port)) return;
      if (child.deaths > 0) break;
    }
    const log = readFileSync(path.join(this.logDir, `${name}.log`), 'utf8')
      .trim()
      .split('\n')
      .slice(-12)
      .join('\n');
    throw new Fault(`${name} did not start. The end of its log (${this.logDir}/${name}.log):\n${log}`);
  }

  #spawn(child) {
    const log = createWriteStream(path.join(this.logDir, `${child.name}.log`), { flags: 'a' });
    // A group of its own: Ctrl-C reaches the start command alone, which ends the others in order.
    const program = spawn(child.command, child.args, {
      env: { ...process.env, ...child.env },
      detached: true,
      stdio: ['ignore', 'pipe', 'pipe'],
    });
    child.process = program;
    child.since = Date.now();
    program.stdout.pipe(log);
    program.stderr.pipe(log);
    writeFileSync(path.join(this.runDir, `${child.name}.pid`), String(program.pid ?? 0));
    program.on('error', () => (child.deaths += 1));
    program.on('exit', () => {
      child.deaths += 1;
      if (this.#ending) return;
      process.stderr.write(`  ${child.name} has ended; it is started again\n`);
      // What dies again and again is started with growing pauses; what has lived for a while, at once.
      child.quickDeaths = Date.now() - child.since > LIVED_MS ? 1 : child.quickDeaths + 1;
      setTimeout(() => !this.#ending && this.#spawn(child), Math.min(10_000, 250 * child.quickDeaths));
    });
  }

  stop() {
    return (this.#ending ??= this.#end());
  }

  async #end() {
    for (const child of this.#children.reverse()) {
      if (child.process?.pid && child.process.exitCode === null) await end(child.process.pid);
      rmSync(path.join(this.runDir, `${child.name}.pid`), { force: true });
    }
    rmSync(path.join(this.runDir, 'start.pid'), { force: true });
  }
}

/** Asks a process to end, and insists after ten seconds. */
async function end(pid) {
  try {
    process.kill(pid, 'SIGTERM');
    for (let i = 0; i < 250 && alive(pid); i++) await wait(40);
    if (alive(pid)) process.kill(pid, 'SIGKILL');
  } catch {
    /* it has ended meanwhile */
  }
}
