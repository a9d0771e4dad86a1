//! How grown code writes times, so that they go back as they came.

use std::borrow::Cow;
use std::sync::LazyLock;

use jar_sprout_model::{Fraction, Model, Scalar, TimeForm, TimeForms, ZeroOffset};

use super::abilities::TimeKeeping;

/// The ways in which the helpers of this crate can write times, the likeliest first.
pub(crate) const FORMS: [TimeForm; 14] = {
    const FRACTIONS: [Fraction; 7] = [
        Fraction::Exactly(3),
        Fraction::Exactly(6),
        Fraction::NoneOr(3),
        Fraction::NoneOr(6),
        Fraction::Shortest,
        Fraction::Exactly(1),
        Fraction::Exactly(2),
    ];
    let mut forms = [TimeForm { fraction: Fraction::Shortest, zero: ZeroOffset::Letter }; 14];
    let mut at = 0;
    while at < FRACTIONS.len() {
        forms[at].fraction = FRACTIONS[at];
        forms[at + FRACTIONS.len()] = TimeForm { fraction: FRACTIONS[at], zero: ZeroOffset::Digits };
        at += 1;
    }
    forms
};

/// How the times of a model are written in a language.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Times {
    /// What the language's usual library writes by itself.
    native: TimeForm,
    /// Whether the language has code for other ways.
    are_kept: bool,
    /// What most places of the model take.
    main: TimeForm,
}

impl Times {
    pub(crate) fn of(model: &Model, keeping: TimeKeeping) -> Self {
        let (fraction, are_kept) = match keeping {
            TimeKeeping::InForm(fraction) => (fraction, true),
            TimeKeeping::AsText | TimeKeeping::Loose => (Fraction::Shortest, false),
        };
        let native = TimeForm { fraction, zero: ZeroOffset::Letter };
        let mut times = Self { native, are_kept, main: native };
        if !are_kept {
            return times;
        }
        let places: Vec<TimeForms> = model.scalars().filter_map(Scalar::time_forms).collect();
        let takers = |form: TimeForm| places.iter().filter(|forms| forms.has(form)).count();
        let mut most = takers(native);
        for form in FORMS {
            let count = takers(form);
            if count > most {
                (times.main, most) = (form, count);
            }
        }
        times
    }

    /// The way in which the times of one place are written; none where it is the library's own.
    pub(crate) fn special_form(&self, scalar: Scalar) -> Option<TimeForm> {
        self.find(scalar.time_forms()?).filter(|form| *form != self.native)
    }

    fn find(&self, forms: TimeForms) -> Option<TimeForm> {
        let native = Some(self.native).filter(|native| !self.are_kept || forms.has(*native));
        // What most places take, where this one does too.
        let main = Some(self.main).filter(|main| forms.has(*main));
        main.or(native).or_else(|| FORMS.into_iter().find(|form| forms.has(*form)))
    }

    /// Whether a way to write times, none for the library's own, is the one that most places of the model take.
    pub(crate) fn is_main(&self, special: Option<TimeForm>) -> bool {
        special.unwrap_or(self.native) == self.main
    }

    /// The model with text in place of times that no way writes back as they came.
    pub(crate) fn writable<'m>(&self, model: &'m Model) -> Cow<'m, Model> {
        let is_lost = |scalar: Scalar| scalar.time_forms().is_some_and(|forms| self.find(forms).is_none());
        if !self.are_kept || !model.scalars().any(is_lost) {
            return Cow::Borrowed(model);
        }
        let mut model = model.clone();
        model.change_scalars(&|scalar| if is_lost(scalar) { Scalar::Text } else { scalar });
        Cow::Owned(model)
    }
}

/// What tells a helper for one way to write times from that for the usual way.
pub(crate) fn suffix(form: TimeForm) -> String {
    let fraction = match form.fraction {
        Fraction::Shortest => "",
        Fraction::Exactly(1) => "Tenths",
        Fraction::Exactly(2) => "Hundredths",
        Fraction::Exactly(3) => "Millis",
        Fraction::Exactly(_) => "Micros",
        Fraction::NoneOr(3) => "OptionalMillis",
        Fraction::NoneOr(_) => "OptionalMicros",
        Fraction::Threes => "Threes",
    };
    let zero = match form.zero {
        ZeroOffset::Letter => "",
        ZeroOffset::Digits => "NumericOffset",
    };
    format!("{fraction}{zero}")
}

/// A type's name without what tells one way to write times from another, if that is in it: names so made are taken.
pub(crate) fn without_suffix(name: &str) -> Option<String> {
    static SUFFIXES: LazyLock<Vec<String>> =
        LazyLock::new(|| FORMS.into_iter().map(suffix).filter(|suffix| !suffix.is_empty()).collect());
    let longest =
        SUFFIXES.iter().filter(|suffix| name.contains(suffix.as_str())).max_by_key(|suffix| suffix.len())?;
    Some(name.replacen(longest, "", 1))
}

#[cfg(test)]
mod tests {
    use jar_sprout_model::{
        Definition, Field, NamedType, Presence, Record, Root, Slot, Type, WireName, Words,
    };

    use super::*;

    /// A record with a date-time field for each set of texts.
    fn model(fields: &[&[&str]]) -> Model {
        let field = |(at, texts): (usize, &&[&str])| {
            let forms = texts.iter().map(|text| TimeForms::of(text)).fold(TimeForms::ALL, TimeForms::and);
            let slot = Slot::of(Type::Scalar(Scalar::DateTime(forms)));
            Field::new(WireName::new(format!("at{at}")), Presence::Always, slot)
        };
        let record = Record::of(fields.iter().enumerate().map(field).collect());
        let name = Words::split("hive");
        let id = jar_sprout_model::TypeId::from_index(0);
        let ty = NamedType::new(name.clone(), Definition::Record(record));
        Model::new(vec![ty], Root { name, slot: Slot::of(Type::Named(id)) })
    }

    /// How each field of such a model is written.
    fn forms(fields: &[&[&str]], keeping: TimeKeeping) -> Vec<Option<TimeForm>> {
        let model = model(fields);
        let times = Times::of(&model, keeping);
        model.scalars().map(|scalar| times.special_form(scalar)).collect()
    }

    const SHORTEST: TimeKeeping = TimeKeeping::InForm(Fraction::Shortest);

    fn letter(fraction: Fraction) -> Option<TimeForm> {
        Some(TimeForm { fraction, zero: ZeroOffset::Letter })
    }

    #[test]
    fn a_place_is_written_in_the_way_of_its_texts() {
        let millis: &[&str] = &["2026-05-01T12:30:00.120Z", "2026-05-01T12:30:00.000Z"];
        let whole: &[&str] = &["2026-05-01T12:30:00Z"];
        let numeric: &[&str] = &["2026-05-01T12:30:00+00:00"];
        assert_eq!(forms(&[whole], SHORTEST), [None]);
        assert_eq!(forms(&[millis, whole], SHORTEST), [letter(Fraction::Exactly(3)), None]);
        assert_eq!(forms(&[whole], TimeKeeping::InForm(Fraction::NoneOr(6))), [None]);
        let shortest = forms(&[numeric], SHORTEST)[0].expect("the library writes `Z`");
        assert_eq!(shortest.zero, ZeroOffset::Digits);
        for keeping in [TimeKeeping::AsText, TimeKeeping::Loose] {
            assert_eq!(forms(&[millis, numeric], keeping), [None, None]);
        }
    }

    #[test]
    fn most_places_decide_for_those_that_take_either() {
        let millis: &[&str] = &["2026-05-01T12:30:00.120Z"];
        let either: &[&str] = &["2026-05-01T12:30:00.123Z"];
        assert_eq!(forms(&[either], SHORTEST), [None]);
        assert_eq!(forms(&[millis, millis, either], SHORTEST), [letter(Fraction::Exactly(3)); 3]);
    }

    #[test]
    fn what_follows_no_one_way_becomes_text() {
        let mixed: &[&str] = &["2026-05-01T12:30:00.10Z", "2026-05-01T12:30:00.5Z"];
        let whole: &[&str] = &["2026-05-01T12:30:00Z"];
        let model = model(&[mixed, whole]);
        let written = |keeping| Times::of(&model, keeping).writable(&model).scalars().collect::<Vec<_>>();
        assert_eq!(written(SHORTEST)[0], Scalar::Text);
        assert_ne!(written(SHORTEST)[1], Scalar::Text);
        assert_ne!(written(TimeKeeping::AsText)[0], Scalar::Text);
    }

    #[test]
    fn names_of_helpers_are_known_by_the_usual_one() {
        let usual = |name| without_suffix(name);
        assert_eq!(usual("OffsetDateTimeMillisSerializer").as_deref(), Some("OffsetDateTimeSerializer"));
        assert_eq!(usual("TimeOptionalMicrosNumericOffset").as_deref(), Some("Time"));
        assert_eq!(usual("HiveSerializer"), None);
    }
}
