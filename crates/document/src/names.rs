//! Names of components: as they stand, and where they are made of several, in the order in which people say them.

use jar_sprout_model::Words;

/// The name of a component: `Page«Hive»` and `Page[Hive]` are a hive page.
pub(crate) fn component_name(name: &str) -> Words {
    let opening = name.find(['«', '<', '[']);
    let parts = match opening {
        Some(at) => Some((&name[..at], name[at..].trim_matches(|c: char| !c.is_alphanumeric()))),
        // The same with every odd letter replaced.
        None => name.strip_suffix('_').and_then(|name| name.split_once('_')),
    };
    let Some((outer, inner)) = parts.filter(|(outer, inner)| !outer.is_empty() && !inner.is_empty()) else {
        return Words::split(last_part(name));
    };
    let inner: Vec<Words> =
        inner.split(',').map(|part| component_name(part.trim())).filter(|words| words.count() > 0).collect();
    let outer = Words::split(last_part(outer));
    inner.iter().rev().fold(outer, |name, part| name.prefixed(part))
}

/// `Hive` of `com.honey.example.Hive`, and of `https://honey.example/schemas/Hive.schema.json`
fn last_part(name: &str) -> &str {
    let is_address = name.contains("://") || FILES.iter().any(|ending| name.ends_with(ending));
    let file = if is_address { name.trim_end_matches('/').rsplit('/').next().unwrap_or(name) } else { name };
    let stem = FILES.iter().find_map(|ending| file.strip_suffix(ending)).unwrap_or(file);
    if stem != file && !stem.is_empty() {
        return stem;
    }
    let last = file.rsplit('.').next().unwrap_or(file);
    let is_versioned = last.chars().all(|c| c.is_ascii_digit());
    if last.is_empty() || is_versioned { file } else { last }
}

/// What the names of schemas end in that are files, the longest first.
const FILES: &[&str] = &[".schema.json", ".schema.yaml", ".schema.yml", ".json", ".yaml", ".yml"];

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn generics_are_said_as_people_say_them() {
        for (name, expected) in [
            ("Hive", "Hive"),
            ("hive_page", "HivePage"),
            ("Page«Hive»", "HivePage"),
            ("Page[Hive]", "HivePage"),
            ("Page<List<Hive>>", "HiveListPage"),
            ("Page_Hive_", "HivePage"),
            ("Map«string,Hive»", "StringHiveMap"),
            ("example.honey.Hive", "Hive"),
            ("Hive.json", "Hive"),
            ("co-op/keeper.schema.json", "Keeper"),
            ("https://honey.example/schemas/frame.yaml", "Frame"),
            ("https://honey.example/schemas/queen", "Queen"),
        ] {
            assert_eq!(component_name(name).in_capitals(), expected, "{name}");
        }
    }
}
