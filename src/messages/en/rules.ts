import { duration, grouped, size } from "./phrases.js";

const stay = (what: string) => (age: number | null) =>
  age === null
    ? `${what} stay until they are discarded`
    : `${what} go after ${duration(age)}, unless they are kept`;

/** Each rule of a drawer: what it is for, in a few words, and what a value of it means, as a sentence without its stop. */
export const rules = {
  collecting: {
    about: "whether anything is collected (pause, resume)",
    means: (on: boolean) =>
      on ? "Collecting is on" : "Collecting is off: nothing is collected until it is resumed",
  },
  blanks: {
    about: "pieces that hold nothing",
    means: (value: "skip" | "allow") =>
      value === "skip" ? "Blank pieces are skipped" : "Blank pieces are collected too",
  },
  repeats: {
    about: "pieces that are the same as the latest",
    means: (value: "skip" | "allow" | "move") =>
      ({
        skip: "A piece that is the same as the latest is skipped",
        allow: "Pieces are collected as often as they come",
        move: "A piece that is there already becomes the latest",
      })[value],
  },
  snippets: {
    about: "at most so many; then the oldest that is not kept goes",
    means: (most: number | null) =>
      most === null
        ? "There may be any number of snippets"
        : most === 1
          ? "There is at most 1 snippet"
          : `There are at most ${grouped(most)} snippets`,
  },
  size: {
    about: "at most so much; then the oldest that is not kept goes",
    means: (most: number | null) =>
      most === null ? "The snippets may take any room" : `The snippets take at most ${size(most)}`,
  },
  textAge: {
    about: "how long text, tables and links stay, unless kept",
    means: stay("Text, tables and links"),
  },
  pictureAge: { about: "how long pictures stay, unless kept", means: stay("Pictures") },
  detect: {
    about: "make private what looks like a secret",
    means: (on: boolean) =>
      on ? "What looks like a secret is made private" : "Nothing is made private unless you say so",
  },
  privateAge: { about: "how long what is a secret stays, unless kept", means: stay("Secrets") },
  goneAge: {
    about: "how long what left can be brought back",
    means: (age: number | null) =>
      age === null
        ? "What left can always be brought back"
        : `What left can be brought back for ${duration(age)}`,
  },
  neverFrom: {
    about: "programs and windows from which nothing is collected, by words of their names",
    means: (names: string) =>
      names === "" ? "What is copied in any program is collected" : `Nothing is collected from: ${names}`,
  },
};
