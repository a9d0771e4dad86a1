//! What a language is.

use crate::habits::{Habits, HabitsOf};
use crate::settings::{Setting, SettingError, Settings};
use crate::spell::{About, Dialect};

/// Where the code stands that the models of a jar share.
#[derive(Debug, Clone, Copy)]
pub struct SharedPlace<'s> {
    /// What the jar calls it: the name of its folder, or more of the way to it.
    pub name: &'s str,
    /// The settings that its code is grown with.
    pub settings: &'s Settings,
    /// The way to its folder from that of the model: `../shared`.
    pub way: &'s str,
}

/// A target of `grow`.
pub trait Language: Sync {
    /// What is fixed of it.
    fn about(&self) -> &'static About;

    /// The language with its settings resolved.
    fn dialect(&self, settings: &Settings) -> Box<dyn Dialect>;

    /// The settings for one model of several, whose code must stand apart from that of the others: in a package or
    /// a namespace of its own, where the language has such a thing. The folder of the same name comes on top.
    fn apart(&self, settings: &Settings, model: &str) -> Settings;

    /// The settings for the code that all models share, which stands in a folder of this name beside theirs.
    fn shared(&self, settings: &Settings, name: &str) -> Settings {
        self.apart(settings, name)
    }

    /// The settings of a model, changed so that its code finds there what all models share; none where the language
    /// has no way to find it.
    fn sharing(&self, settings: &Settings, shared: &SharedPlace<'_>) -> Option<Settings>;

    /// These settings, changed so that a trial's code stands where its driver looks for it, with what the driver
    /// calls.
    fn for_trial(&self, settings: &Settings, place: &str) -> Settings;
}

impl dyn Language + '_ {
    /// What the user types: `kotlin`.
    pub fn key(&self) -> &'static str {
        self.about().key
    }

    /// What people call it: `Kotlin`.
    pub fn title(&self) -> &'static str {
        self.about().title
    }

    /// What is grown, in a few words.
    pub fn grows(&self) -> &'static str {
        self.about().grows
    }

    /// What the names of its files end in: `kt`.
    pub fn ending(&self) -> &'static str {
        self.about().ending
    }

    /// The settings it has.
    pub fn settings(&self) -> &'static [&'static dyn Setting] {
        self.about().settings
    }

    /// The setting that says where its code stands among other code: a package or a namespace, where it has one.
    pub fn package_setting(&self) -> Option<&'static str> {
        let keys = self.settings().iter().map(|setting| setting.key());
        keys.into_iter().find(|key| ["package", "namespace"].contains(key))
    }

    /// What stands between the parts of a path by which code is imported from the root of all, in a language that finds
    /// what models share by its whole path and not beside them.
    pub fn shared_path(&self) -> Option<char> {
        self.about().between
    }

    /// Whether its fields are called as their keys are, whatever other name they get.
    pub fn keeps_keys(&self) -> bool {
        self.about().naming.member_case.is_none()
    }

    /// The folders in which its people keep code with these settings: those of the package that was chosen, the
    /// outermost first.
    pub fn folders(&self, settings: &Settings) -> Vec<String> {
        let package = self.about().folders.and_then(|setting| settings.given(setting.key));
        package.map(|package| package.split('.').map(str::to_owned).collect()).unwrap_or_default()
    }

    /// What becomes of data that is not what the model says, with these settings.
    ///
    /// # Panics
    /// Never: each language has a row that always holds.
    pub fn habits(&self, settings: &Settings) -> Habits {
        let holds = |row: &&HabitsOf| row.when.iter().all(|(key, value)| settings.given(key) == Some(value));
        let row = self.about().habits.iter().filter(holds).max_by_key(|row| row.when.len());
        row.expect("each language has a row without settings").habits
    }

    /// Sets one setting.
    ///
    /// # Errors
    /// A key that the language does not have, or a value it cannot take.
    pub fn set(&self, settings: &mut Settings, key: &str, value: &str) -> Result<(), SettingError> {
        settings.set(self.settings(), key, value)
    }
}
