//! The jar when things happen to it: runs that are killed or interrupted, several at once, other people's files
//! beside ours, samples that change while it is watched.

#![allow(clippy::unwrap_used, reason = "a test or a bench that cannot go on should stop")]

use std::fs::{self, File};
use std::path::{Path, PathBuf};
use std::process::{Child, Command, Output, Stdio};
use std::time::{Duration, Instant, SystemTime};

use jar_sprout_grow::{Origin, Provenance, origin};
use tempfile::TempDir;

const JAR: &str =
    "version = 1\n\n[models.hive]\nsources = [\"hive.json\"]\n\n[languages.java]\ndir = \"models\"\n";

/// A jar for TypeScript in one folder.
const WEB_JAR: &str =
    "version = 1\n\n[models.hive]\nsources = [\"hive.json\"]\n\n[languages.typescript]\ndir = \"DIR\"\n";

/// A sample with many types, so that there are many files.
fn sample(generation: usize) -> String {
    let types: Vec<String> = (0..40)
        .map(|index| format!("\"part_{index}\": {{\"kg_{generation}_{index}\": 1, \"of_{index}\": \"x\"}}"))
        .collect();
    format!("{{{}}}", types.join(", "))
}

fn run(folder: &Path, arguments: &[&str]) -> Child {
    let mut command = Command::new(assert_cmd::cargo::cargo_bin!("jar-sprout"));
    command.args(arguments).current_dir(folder).stdout(Stdio::null()).stderr(Stdio::null()).spawn().unwrap()
}

/// A folder with these files.
fn folder_of(files: &[(&str, &str)]) -> TempDir {
    let folder = tempfile::tempdir().unwrap();
    for (name, text) in files {
        let path = folder.path().join(name);
        fs::create_dir_all(path.parent().unwrap()).unwrap();
        fs::write(path, text).unwrap();
    }
    folder
}

#[track_caller]
fn done(folder: &Path, arguments: &[&str]) -> Output {
    let mut command = Command::new(assert_cmd::cargo::cargo_bin!("jar-sprout"));
    let output = command.args(arguments).current_dir(folder).output().unwrap();
    assert!(output.status.success(), "{arguments:?}: {}", String::from_utf8_lossy(&output.stderr));
    output
}

/// What of ours lies about in a folder.
fn leftovers(folder: &Path) -> Vec<PathBuf> {
    let entries = fs::read_dir(folder).into_iter().flatten().map(|entry| entry.unwrap().path());
    entries.filter(|path| path.file_name().unwrap().to_string_lossy().starts_with(".jar-sprout-")).collect()
}

/// Makes something look as if it had been there for a day.
fn age(path: &Path) {
    let yesterday = SystemTime::now() - Duration::from_secs(24 * 60 * 60);
    File::open(path).unwrap().set_modified(yesterday).unwrap();
}

#[test]
fn a_run_that_is_killed_leaves_whole_files() {
    let folder = tempfile::tempdir().unwrap();
    fs::write(folder.path().join("jar.toml"), JAR).unwrap();
    let of_hive = Origin::Grown(Provenance::of_jar("hive", "../jar.toml"));
    let mut seen = 0;
    // Later and later, until some run gets as far as writing: how far that is depends on the machine.
    for generation in 0..400 {
        if generation >= 40 && seen > 0 {
            break;
        }
        fs::write(folder.path().join("hive.json"), sample(generation)).unwrap();
        let mut child = run(folder.path(), &["grow"]);
        std::thread::sleep(Duration::from_micros(500 * generation as u64));
        child.kill().unwrap();
        child.wait().unwrap();
        for entry in fs::read_dir(folder.path().join("models")).into_iter().flatten() {
            let path = entry.unwrap().path();
            if path.extension().is_some_and(|extension| extension == "java") {
                let text = fs::read_to_string(&path).unwrap();
                assert_eq!(origin(&text), of_hive, "{}", path.display());
                seen += 1;
            }
        }
    }
    assert!(seen > 0, "some run got as far as writing");
    // The next one makes it whole.
    assert!(run(folder.path(), &["grow"]).wait().unwrap().success());
    assert!(run(folder.path(), &["check"]).wait().unwrap().success());
    // What was left lies there for as long as a run might need it, and no longer; a person's file stays.
    let java = folder.path().join("models");
    let persons = java.join(".jar-sprout-notes.txt");
    fs::write(&persons, "ours").unwrap();
    let fresh = java.join(".jar-sprout-a1B2c3");
    fs::create_dir(&fresh).unwrap();
    for path in leftovers(&java).iter().filter(|path| **path != fresh) {
        age(path);
    }
    fs::write(folder.path().join("hive.json"), sample(1000)).unwrap();
    done(folder.path(), &["grow"]);
    let mut left = leftovers(&java);
    left.sort();
    assert_eq!(left, [fresh, persons]);
}

#[cfg(unix)]
#[test]
fn a_run_that_is_interrupted_leaves_nothing_behind() {
    for signal in ["INT", "TERM", "HUP"] {
        let folder = folder_of(&[("jar.toml", JAR)]);
        for generation in 0..12 {
            fs::write(folder.path().join("hive.json"), sample(generation)).unwrap();
            let mut child = run(folder.path(), &["grow"]);
            std::thread::sleep(Duration::from_millis(4 * generation as u64));
            let id = child.id().to_string();
            Command::new("kill").args(["-s", signal, &id]).status().unwrap();
            child.wait().unwrap();
            for place in [folder.path().to_owned(), folder.path().join("models")] {
                assert_eq!(leftovers(&place), Vec::<PathBuf>::new(), "{signal} {generation}");
            }
        }
    }
}

#[test]
fn many_decisions_at_once_are_all_kept() {
    let keys: Vec<String> =
        ('a'..='t').flat_map(|c| ["kg", "note"].map(|word| format!("{word}_of_{c}"))).collect();
    let value = |key: &String| if key.starts_with("kg") { "1" } else { "\"full\"" };
    let fields: Vec<String> = keys.iter().map(|key| format!("\"{key}\": {}", value(key))).collect();
    let sample = format!("{{{}}}", fields.join(", "));
    let folder = folder_of(&[("jar.toml", JAR), ("hive.json", &sample)]);
    let decide = |key: &String| run(folder.path(), &["decide", &format!("Hive.{key}"), "--optional"]);
    let children: Vec<Child> = keys.iter().map(decide).collect();
    for mut child in children {
        assert!(child.wait().unwrap().success());
    }
    let jar = fs::read_to_string(folder.path().join("jar.toml")).unwrap();
    for key in &keys {
        assert!(jar.contains(&format!("\"Hive.{key}\" = ")), "{key} is lost:\n{jar}");
    }
    assert_eq!(leftovers(folder.path()), Vec::<PathBuf>::new());
}

/// Grows, and then again for another sample whose root type has another name, so that the first file goes.
#[track_caller]
fn grow_and_rename(folder: &Path) {
    done(folder, &["grow"]);
    fs::write(
        folder.join("jar.toml"),
        fs::read_to_string(folder.join("jar.toml"))
            .unwrap()
            .replace("sources = [\"hive.json\"]", "sources = [\"hive.json\"]\nroot = \"Colony\""),
    )
    .unwrap();
    done(folder, &["grow"]);
}

#[test]
fn two_jars_grow_into_one_folder() {
    let jar =
        |model: &str| WEB_JAR.replace("DIR", "../models").replace("models.hive", &format!("models.{model}"));
    let (hives, keepers) = (jar("hive"), jar("keeper"));
    let folder = folder_of(&[
        ("hives/jar.toml", &hives),
        ("hives/hive.json", "{\"kg\": 1}"),
        ("keepers/jar.toml", &keepers.replace("hive.json", "keeper.json")),
        ("keepers/keeper.json", "{\"name\": \"Ada\"}"),
    ]);
    for jar in ["hives", "keepers", "hives", "keepers"] {
        done(&folder.path().join(jar), &["grow"]);
        done(&folder.path().join(jar), &["check"]);
    }
    for file in ["hive.ts", "keeper.ts"] {
        assert!(folder.path().join("models").join(file).exists(), "{file}");
    }
}

#[test]
fn what_another_jar_governs_is_its_own() {
    let folder = folder_of(&[
        ("jar.toml", &WEB_JAR.replace("DIR", ".")),
        ("hive.json", "{\"kg\": 1}"),
        ("hive/jar.toml", &WEB_JAR.replace("DIR", ".")),
        ("hive/hive.json", "{\"kg\": 1, \"frames\": 10}"),
    ]);
    done(&folder.path().join("hive"), &["grow"]);
    grow_and_rename(folder.path());
    assert!(folder.path().join("hive/hive.ts").exists(), "the inner jar's file stays");
    assert!(folder.path().join("colony.ts").exists());
    assert!(!folder.path().join("hive.ts").exists(), "its own goes");
}

#[test]
fn a_copy_is_a_persons() {
    let folder = folder_of(&[("jar.toml", &WEB_JAR.replace("DIR", "models")), ("hive.json", "{\"kg\": 1}")]);
    done(folder.path(), &["grow"]);
    for place in ["models/legacy", "models/hive"] {
        fs::create_dir_all(folder.path().join(place)).unwrap();
        fs::copy(folder.path().join("models/hive.ts"), folder.path().join(place).join("hive.ts")).unwrap();
    }
    grow_and_rename(folder.path());
    for copy in ["models/legacy/hive.ts", "models/hive/hive.ts"] {
        assert!(folder.path().join(copy).exists(), "{copy}");
    }
    assert!(!folder.path().join("models/hive.ts").exists());
    done(folder.path(), &["check"]);
}

#[test]
fn what_a_formatter_did_stays() {
    let folder = folder_of(&[("jar.toml", &WEB_JAR.replace("DIR", "models")), ("hive.json", "{\"kg\": 1}")]);
    done(folder.path(), &["grow"]);
    let file = folder.path().join("models/hive.ts");
    let formatted = fs::read_to_string(&file).unwrap().replace("  kg", "\tkg").replace('\n', "\r\n");
    fs::write(&file, &formatted).unwrap();
    done(folder.path(), &["check"]);
    assert!(String::from_utf8(done(folder.path(), &["grow"]).stderr).unwrap().contains("nothing to do"));
    assert_eq!(fs::read_to_string(&file).unwrap(), formatted);
    // When something else is to change, it is grown anew.
    fs::write(folder.path().join("hive.json"), "{\"kg\": 1, \"frames\": 10}").unwrap();
    done(folder.path(), &["grow"]);
    assert!(fs::read_to_string(&file).unwrap().contains("  kg: number;\n  frames: number;"));
}

#[cfg(unix)]
#[test]
fn no_link_is_followed() {
    use std::os::unix::fs::symlink;
    let folder =
        folder_of(&[("app/jar.toml", &WEB_JAR.replace("DIR", "models")), ("app/hive.json", "{\"kg\": 1}")]);
    let app = folder.path().join("app");
    done(&app, &["grow"]);
    let outside = folder.path().join("outside");
    fs::create_dir(&outside).unwrap();
    fs::copy(app.join("models/hive.ts"), outside.join("hive.ts")).unwrap();
    symlink("../../outside", app.join("models/hive")).unwrap();
    symlink(".", app.join("models/loop")).unwrap();
    symlink("../../outside/hive.ts", app.join("models/hive-too.ts")).unwrap();
    grow_and_rename(&app);
    assert!(outside.join("hive.ts").exists());
    for kept in ["models/hive-too.ts", "models/colony.ts"] {
        assert!(app.join(kept).exists(), "{kept}");
    }
    assert!(String::from_utf8(done(&app, &["grow"]).stderr).unwrap().contains("nothing to do"));
    done(&app, &["check"]);
}

#[test]
fn a_jar_that_is_watched_grows_again() {
    let folder = tempfile::tempdir().unwrap();
    fs::write(folder.path().join("jar.toml"), JAR).unwrap();
    fs::write(folder.path().join("hive.json"), "{\"id\": 1}").unwrap();
    let mut child = run(folder.path(), &["grow", "--watch"]);
    let grown = folder.path().join("models/Hive.java");
    let has = |word: &str| fs::read_to_string(&grown).is_ok_and(|text| text.contains(word));
    let until = |word: &str| {
        let start = Instant::now();
        while !has(word) {
            assert!(start.elapsed() < Duration::from_secs(60), "{word} never came");
            // A change that came before the watch began is not seen: it is made again.
            if word != "id" {
                fs::write(folder.path().join("hive.json"), format!("{{\"id\": 1, \"{word}\": 2}}")).unwrap();
            }
            std::thread::sleep(Duration::from_millis(300));
        }
    };
    until("id");
    until("frames");
    until("supers");
    child.kill().unwrap();
    child.wait().unwrap();
}
