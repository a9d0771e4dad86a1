//! What a transcript cannot show: pipes, colours, folders that refuse, time stamps, the pages.

#![allow(clippy::unwrap_used, reason = "a test or a bench that cannot go on should stop")]

mod shell;

use std::fs;
use std::path::{Path, PathBuf};
use std::process::{Command, Stdio};

use assert_cmd::cargo::CommandCargoExt;
use shell::words;

fn jar_sprout() -> Command {
    let mut command = Command::cargo_bin("jar-sprout").unwrap();
    command.env_remove("COLUMNS").env_remove("NO_COLOR").env_remove("CLICOLOR_FORCE");
    command
}

fn demo_data() -> std::path::PathBuf {
    Path::new(env!("CARGO_MANIFEST_DIR")).join("demo")
}

#[test]
fn a_reader_that_goes_away_is_no_failure() {
    let mut child = jar_sprout()
        .args(["look", "hives.json", "harvests.json", "members.json", "--format", "json"])
        .current_dir(demo_data())
        .stdout(Stdio::piped())
        .stderr(Stdio::piped())
        .spawn()
        .unwrap();
    drop(child.stdout.take());
    let output = child.wait_with_output().unwrap();
    assert_eq!(String::from_utf8_lossy(&output.stderr), "");
    assert_eq!(output.status.code(), Some(0));
}

#[cfg(target_os = "linux")]
#[test]
fn a_full_disk_is_told() {
    let full = fs::File::options().write(true).open("/dev/full").unwrap();
    let output = jar_sprout()
        .args(["grow", "hives.json", "--into", "kotlin"])
        .current_dir(demo_data())
        .stdout(full)
        .stderr(Stdio::piped())
        .output()
        .unwrap();
    let said = String::from_utf8_lossy(&output.stderr).into_owned();
    assert_eq!(said, "error: the disk is full\n  standard output\n");
    assert_eq!(output.status.code(), Some(2));
}

#[cfg(target_os = "linux")]
#[test]
fn a_folder_that_cannot_be_written_is_told() {
    // Not by its rights, which do not bind an administrator: this one refuses everybody.
    let output = jar_sprout()
        .args(["grow", "hive-17.json", "--into", "kotlin", "--dir", "/proc/self/hives"])
        .current_dir(demo_data())
        .output()
        .unwrap();
    let said = String::from_utf8_lossy(&output.stderr).into_owned();
    assert!(said.starts_with("error: cannot make this folder: "), "{said}");
    assert!(said.contains("/proc/self/hives"), "{said}");
    assert_eq!(output.status.code(), Some(2));
}

#[test]
fn colour_is_for_terminals_and_those_who_ask() {
    let look = |name: &str, value: &str| {
        let output =
            jar_sprout().args(["look", "hive-17.json"]).env(name, value).current_dir(demo_data()).output();
        String::from_utf8(output.unwrap().stdout).unwrap()
    };
    assert!(look("CLICOLOR_FORCE", "1").contains("\u{1b}["));
    assert!(!look("NO_COLOR", "1").contains('\u{1b}'));
    assert!(!look("UNRELATED", "1").contains('\u{1b}'));
}

#[test]
fn every_line_of_a_look_fits_the_width() {
    for file in fs::read_dir(demo_data()).unwrap() {
        for columns in [80, 120, 160] {
            let output = jar_sprout()
                .arg("look")
                .arg(file.as_ref().unwrap().path())
                .env("COLUMNS", columns.to_string())
                .output()
                .unwrap();
            let text = String::from_utf8(output.stdout).unwrap();
            for line in text.lines() {
                assert!(unicode_width::UnicodeWidthStr::width(line) <= columns, "{columns}: {line}");
            }
        }
    }
}

#[test]
fn files_that_stay_the_same_are_left_alone() {
    let folder = tempfile::tempdir().unwrap();
    let grow = || {
        let status = jar_sprout()
            .args(["grow", "hives.json", "--into", "kotlin", "--dir"])
            .arg(folder.path())
            .current_dir(demo_data())
            .stderr(Stdio::null())
            .status();
        assert!(status.unwrap().success());
    };
    grow();
    let file = folder.path().join("Hive.kt");
    let stamp = |file: &Path| fs::metadata(file).unwrap().modified().unwrap();
    let first = stamp(&file);
    grow();
    assert_eq!(stamp(&file), first);
}

#[test]
fn any_order_of_files_gives_the_same_bytes() {
    let grow = |files: [&str; 3]| {
        let output =
            jar_sprout().arg("grow").args(files).args(["--into", "kotlin"]).current_dir(demo_data()).output();
        output.unwrap().stdout
    };
    let expected = grow(["hive-17.json", "hive-95.json", "inspections.ndjson"]);
    assert!(!expected.is_empty());
    assert_eq!(grow(["inspections.ndjson", "hive-95.json", "hive-17.json"]), expected);
    assert_eq!(grow(["hive-95.json", "inspections.ndjson", "hive-17.json"]), expected);
}

/// Every file of a folder, with its text.
fn files_of(folder: &Path) -> std::collections::BTreeMap<String, String> {
    let entries = fs::read_dir(folder).into_iter().flatten().map(|entry| entry.unwrap().path());
    entries
        .map(|path| {
            (path.file_name().unwrap().to_str().unwrap().to_owned(), fs::read_to_string(&path).unwrap())
        })
        .collect()
}

/// The README's proof, in a language that asks for nothing to be installed by us.
#[test]
fn a_proof_holds_or_tells_what_is_missing() {
    let mut prove = jar_sprout();
    prove.args(["prove", "hives.json", "--at", "$.hives[*]", "--into", "go", "--format", "json"]);
    let output = prove.current_dir(demo_data()).output().unwrap();
    assert_eq!(output.status.code(), Some(0), "{}", String::from_utf8_lossy(&output.stderr));
    let proven: serde_json::Value = serde_json::from_slice(&output.stdout).unwrap();
    let go = &proven[0];
    if go["missing"].is_null() {
        assert_eq!(
            (&go["compiled"], &go["samples"], &go["equal"]),
            (&true.into(), &9.into(), &9.into()),
            "{go}"
        );
    } else {
        assert!(go["install"].is_string(), "{go}");
    }
}

#[test]
fn the_gallery_shows_what_is_grown_today() {
    let gallery = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../gallery");
    let listed = String::from_utf8(jar_sprout().arg("languages").output().unwrap().stdout).unwrap();
    // A language stands at the start of its line; its settings stand below it.
    let languages = listed.lines().filter(|line| !line.starts_with(' '));
    let languages: Vec<&str> = languages.filter_map(|line| line.split_whitespace().next()).collect();
    assert!(languages.len() >= 9, "the languages were found");
    for language in languages {
        let grown = tempfile::tempdir().unwrap();
        let mut grow = jar_sprout();
        grow.args(["grow", "events.json", "--into", language, "--questions", "none", "--dir"])
            .arg(grown.path());
        assert!(grow.current_dir(demo_data()).stderr(Stdio::null()).status().unwrap().success());
        let place = gallery.join(language);
        if std::env::var_os("BLESS").is_some() {
            let _ = fs::remove_dir_all(&place);
            fs::create_dir_all(&place).unwrap();
            for (name, text) in files_of(grown.path()) {
                fs::write(place.join(name), text).unwrap();
            }
        }
        assert_eq!(files_of(&place), files_of(grown.path()), "{language}: `cargo xtask bless` grows it anew");
    }
}

/// The README as lines and commands: `$ command` in a `console` block, then what it prints.
enum Part {
    Line(String),
    Command { command: String, output: String },
}

/// The README, and the pages that people write beside it.
fn pages() -> Vec<PathBuf> {
    let root = Path::new(env!("CARGO_MANIFEST_DIR")).join("../..");
    let docs = fs::read_dir(root.join("docs")).unwrap().map(|entry| entry.unwrap().path());
    let mut pages: Vec<PathBuf> =
        docs.filter(|path| path.extension().is_some_and(|end| end == "md")).collect();
    pages.sort();
    pages.insert(0, root.join("README.md"));
    pages
}

fn parts_of(page: &Path) -> Vec<Part> {
    let mut parts = Vec::new();
    let mut in_block = false;
    for line in fs::read_to_string(page).unwrap().lines() {
        if line.starts_with("```") {
            in_block = line == "```console";
            parts.push(Part::Line(line.to_owned()));
        } else if let Some(command) = line.strip_prefix("$ ").filter(|_| in_block) {
            parts.push(Part::Command { command: command.to_owned(), output: String::new() });
        } else if let (true, Some(Part::Command { output, .. })) = (in_block, parts.last_mut()) {
            output.push_str(line);
            output.push('\n');
        } else {
            parts.push(Part::Line(line.to_owned()));
        }
    }
    parts
}

/// Runs a command of the README in a folder; a shown output that ends in `…` is only the start of it.
fn run_shown(command: &str, shown: &str, folder: &Path) -> String {
    if command == "cargo test" {
        // The one that runs this.
        return shown.to_owned();
    }
    let arguments = command
        .strip_prefix("cargo run --release -- ")
        .or_else(|| command.strip_prefix("jar-sprout "))
        .unwrap_or_else(|| panic!("not a command of ours: {command}"));
    let output = jar_sprout().args(words(arguments)).current_dir(folder).output().unwrap();
    let came = String::from_utf8(output.stdout).unwrap() + &String::from_utf8(output.stderr).unwrap();
    assert_eq!(output.status.code(), Some(0), "{command}: {came}");
    if !shown.trim_end().ends_with('…') {
        return came;
    }
    let lines = shown.trim_end().lines().count() - 1;
    came.lines().take(lines).chain(["…"]).map(|line| format!("{line}\n")).collect()
}

#[test]
fn every_command_of_the_pages_does_what_it_shows() {
    let mut commands = 0;
    for page in pages() {
        let folder = tempfile::tempdir().unwrap();
        // The README makes the demo itself.
        if !page.ends_with("README.md") {
            assert!(jar_sprout().arg("demo").current_dir(&folder).output().unwrap().status.success());
        }
        let mut fresh = String::new();
        for part in parts_of(&page) {
            match part {
                Part::Line(line) => fresh += &format!("{line}\n"),
                Part::Command { command, output } => {
                    commands += 1;
                    let came = run_shown(&command, &output, folder.path());
                    fresh += &format!("$ {command}\n{came}");
                    if came != output && std::env::var_os("BLESS").is_none() {
                        panic!("{}: {command} shows\n{output}\ncame\n{came}", page.display());
                    }
                }
            }
        }
        if std::env::var_os("BLESS").is_some() {
            fs::write(page, fresh).unwrap();
        }
    }
    assert!(commands >= 12, "the commands were found");
}

/// The lines of a page's scripts that call us, with what comes before a pipe cut off.
fn scripts_of(page: &Path) -> Vec<String> {
    let text = fs::read_to_string(page).unwrap();
    let blocks = text.split("```sh\n").skip(1).filter_map(|rest| rest.split("```").next());
    let call = |line: &str| {
        let call = line.rsplit(" | ").next().unwrap().trim();
        let call = call.split(" || ").next().unwrap().strip_prefix("jar-sprout ");
        // What asks a server, or is one, is run in `fetch.rs` and `stand_in.rs`.
        let has_server = |call: &&str| call.starts_with("fetch ") || call.starts_with("stand-in");
        call.filter(|call| !has_server(call)).map(str::to_owned)
    };
    blocks.flat_map(str::lines).filter_map(call).collect()
}

#[test]
fn every_script_of_the_pages_works() {
    let folder = tempfile::tempdir().unwrap();
    assert!(
        jar_sprout().args(["demo", "--dir", "."]).current_dir(&folder).output().unwrap().status.success()
    );
    let mut scripts = 0;
    for page in pages() {
        for script in scripts_of(&page) {
            let mut command = assert_cmd::Command::cargo_bin("jar-sprout").unwrap();
            command.args(words(&script)).current_dir(&folder);
            command.write_stdin(fs::read(demo_data().join("hive-17.json")).unwrap());
            let output = command.output().unwrap();
            let said = String::from_utf8_lossy(&output.stderr);
            assert_eq!(output.status.code(), Some(0), "{}: {script}: {said}", page.display());
            scripts += 1;
        }
    }
    assert!(scripts >= 6, "the scripts were found");
}

/// What a command's help shows under `Example:`.
fn examples_of(help: &str) -> Vec<String> {
    let lines = help.lines().skip_while(|line| *line != "Example:").skip(1);
    lines.map_while(|line| line.strip_prefix("  ")).map(str::to_owned).collect()
}

#[test]
fn every_example_of_the_help_works() {
    let help = |arguments: &[&str]| {
        let output = jar_sprout().args(arguments).arg("--help").output().unwrap();
        String::from_utf8(output.stdout).unwrap()
    };
    let whole = help(&[]);
    let listed = whole.lines().skip_while(|line| *line != "Commands:").skip(1);
    let rows = listed.map_while(|line| line.strip_prefix("  "));
    let names = rows.filter(|row| !row.starts_with(' ')).filter_map(|row| row.split_whitespace().next());
    let mut examples = 0;
    // Those of `fetch` ask a server, and are run where there is one: in `fetch.rs`; `stand-in` is one.
    for name in names.filter(|name| !matches!(*name, "help" | "fetch" | "stand-in")) {
        let shown = examples_of(&help(&[name]));
        assert!(!shown.is_empty(), "{name} has no example");
        for example in shown {
            // The demo's jar and its samples; a new jar is made where there is none.
            let folder = tempfile::tempdir().unwrap();
            let is_jar = matches!(name, "decide" | "check");
            if is_jar {
                assert!(
                    jar_sprout()
                        .args(["demo", "--dir", "."])
                        .current_dir(&folder)
                        .output()
                        .unwrap()
                        .status
                        .success()
                );
            } else {
                fs::copy(demo_data().join("hives.json"), folder.path().join("hives.json")).unwrap();
            }
            examples += 1;
            if name == "prove" {
                // Whether it proves something is up to the machine, and tested elsewhere.
                let words = example.strip_prefix("jar-sprout ").unwrap().split_whitespace();
                let status = jar_sprout().args(words).current_dir(folder.path()).output().unwrap().status;
                assert!(matches!(status.code(), Some(0 | 1)), "{example}");
                continue;
            }
            run_shown(&example, "…", folder.path());
        }
    }
    assert!(examples >= 10, "the examples were found");
}

#[cfg(target_os = "linux")]
#[test]
fn a_name_that_no_glob_matches_is_told() {
    use std::os::unix::ffi::OsStrExt as _;
    let folder = tempfile::tempdir().unwrap();
    fs::write(folder.path().join("a.json"), "{}").unwrap();
    fs::write(folder.path().join(std::ffi::OsStr::from_bytes(b"b\xff.json")), "{}").unwrap();
    let mut command = Command::cargo_bin("jar-sprout").unwrap();
    let output = command.args(["look", "*.json"]).current_dir(folder.path()).output().unwrap();
    let said = String::from_utf8_lossy(&output.stderr);
    assert!(output.status.success() && said.contains("no UTF-8"), "{said}");
}

#[test]
fn a_scrubbed_sample_holds_no_value_and_makes_the_same_code() {
    let folder = tempfile::tempdir().unwrap();
    let run = |arguments: &[&str]| {
        let output = jar_sprout().args(arguments).current_dir(folder.path()).output().unwrap();
        assert!(output.status.success(), "{arguments:?}: {}", String::from_utf8_lossy(&output.stderr));
        String::from_utf8(output.stdout).unwrap()
    };
    for name in ["members.json", "hives.json", "inspections.ndjson"] {
        let sample = demo_data().join(name);
        run(&["scrub", sample.to_str().unwrap(), "--dir", "shared"]);
        let scrubbed = format!("shared/{name}");
        let grown = |file: &str| {
            let code = run(&[
                "grow",
                file,
                "--into",
                "kotlin",
                "--with",
                "mark=none",
                "--questions",
                "none",
                "--quiet",
            ]);
            code.lines().filter(|line| !line.starts_with("// @generated")).collect::<Vec<_>>().join("\n")
        };
        assert_eq!(grown(&scrubbed), grown(sample.to_str().unwrap()), "{name}");
        let before = fs::read_to_string(&sample).unwrap();
        let after = fs::read_to_string(folder.path().join(&scrubbed)).unwrap();
        for value in ["Ada Merrow", "fennimarsh", "Sluice Road", "192.0.2.17", "Alder Bank", "2026-04-01"] {
            assert!(!after.contains(value), "{value} stayed in {name}");
        }
        assert!(before.contains("Ada Merrow") || name != "members.json");
    }
    let sample = demo_data().join("members.json");
    let kept = run(&["scrub", sample.to_str().unwrap(), "--keep-values", "Member.fullName"]);
    assert!(kept.contains("Ada Merrow") && !kept.contains("Sluice Road"), "{kept}");
    let sample = demo_data().join("inspections.ndjson");
    let without = run(&["scrub", sample.to_str().unwrap(), "--scrub-words", "Inspection.temper"]);
    assert!(!without.contains("nervous"), "{without}");
    // Another key each time.
    assert_ne!(kept, run(&["scrub", demo_data().join("members.json").to_str().unwrap()]));
}
