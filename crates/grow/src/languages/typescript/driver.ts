// Every line of standard input names a trial, a sample to read and a result to write.
import { readFileSync, writeFileSync } from "node:fs";
import { trials } from "./trials.js";

for (const line of readFileSync(0, "utf8").split("\n")) {
  const [place = "", sample = "", result = ""] = line.split("\t");
  const trial = trials[place];
  if (trial === undefined) {
    continue;
  }
  try {
    writeFileSync(result, trial(readFileSync(sample, "utf8")));
  } catch (error) {
    console.log(
      [place, sample, String(error).replaceAll(/\s+/g, " ")].join("\t"),
    );
  }
}
