import type { Context } from "hono";
import { streamSSE } from "hono/streaming";

/** What is told while somebody listens. */
export interface EventStream {
  /** Tells an event. */
  readonly tell: (event: string, data?: string) => void;
  /** Ends it. */
  readonly end: () => void;
}

/** How often it is said that the stream is still there, in milliseconds. */
const STILL_HERE = 15_000;

/**
 * Answers with events for as long as somebody listens (server-sent events, HTML Living Standard, 9.2). That it is still there, `here`, is
 * told at once and now and then. Who asks for the head alone gets nothing to listen to: nobody would ever be heard to leave.
 *
 * @param begin is called when it begins; returns what is done when it has ended
 */
export function answerWithEvents(context: Context, begin: (stream: EventStream) => () => void): Response {
  if (context.req.method === "HEAD") return context.body(null, 200, { "content-type": "text/event-stream" });
  return streamSSE(context, async (stream) => {
    let end: () => void;
    const ended = new Promise<void>((settle) => (end = settle));
    stream.onAbort(() => end());
    const tell = (event: string, data = "") => void stream.writeSSE({ event, data });
    const stop = begin({ tell, end: () => end() });
    // A stream that has gone unheard keeps no program from ending.
    const timer = setInterval(() => (stream.aborted || stream.closed ? end() : tell("here")), STILL_HERE);
    timer.unref();
    tell("here");
    await ended;
    clearInterval(timer);
    stop();
  });
}
