// The licences of all that is in the built file, one after the other.
const { readFileSync, writeFileSync } = require("node:fs");
const { packages } = JSON.parse(readFileSync("package-lock.json", "utf8"));
const names = Object.keys(packages).filter((name) => name && !packages[name].dev && !packages[name].optional);
const texts = names.sort().map((name) => {
  const { version, license } = packages[name];
  const title = `${name.replace("node_modules/", "")} ${version} (${license})`;
  return `${title}\n${"=".repeat(title.length)}\n\n${readFileSync(`${name}/LICENSE`, "utf8").trim()}\n`;
});
writeFileSync("LICENCES.txt", texts.join("\n\n"));
