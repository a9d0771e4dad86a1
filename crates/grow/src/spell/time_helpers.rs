//! Helpers that write times: one for each way that differs from a library's own.

use jar_sprout_model::{Scalar, TimeForm};

use super::sheet::Helper;
use crate::plan::Plan;
use crate::prepare::FORMS;

/// A helper for each way to write times: real files with names and code of their own.
pub(crate) struct TimeHelpers(Vec<(TimeForm, String, String)>);

impl TimeHelpers {
    /// `make` gives the name and the text of the helper for one way.
    pub(crate) fn new(make: impl Fn(TimeForm) -> (String, String)) -> Self {
        let made = FORMS.into_iter().map(|form| {
            let (name, text) = make(form);
            (form, name, text)
        });
        Self(made.collect())
    }

    /// The helper for one way.
    pub(crate) fn get(&'static self, form: TimeForm) -> Helper {
        let found = self.0.iter().find(|(one, _, _)| *one == form);
        let (_, name, text) = found.expect("there is a helper for every form that is chosen");
        Helper { name, text }
    }
}

/// Helpers for all kinds of time: with an offset, without one, and times of day.
pub(crate) struct HelpersByTime(pub(crate) [TimeHelpers; 3]);

impl HelpersByTime {
    /// The helper for a time that is written in another way than the library's own.
    pub(crate) fn special(&'static self, plan: &Plan<'_>, scalar: Scalar) -> Option<Helper> {
        self.get(scalar, plan.times.special_form(scalar)?)
    }

    /// The helper for a time that is written in this way.
    pub(crate) fn get(&'static self, scalar: Scalar, form: TimeForm) -> Option<Helper> {
        let [date_times, local_date_times, times] = &self.0;
        match scalar {
            Scalar::DateTime(_) => Some(date_times.get(form)),
            Scalar::LocalDateTime(_) => Some(local_date_times.get(form)),
            Scalar::Time(_) => Some(times.get(form)),
            Scalar::Boolean
            | Scalar::Always(_)
            | Scalar::Integer(_)
            | Scalar::Float
            | Scalar::Text
            | Scalar::Date
            | Scalar::Uuid
            | Scalar::Uri
            | Scalar::Decimal
            | Scalar::Coded(_) => None,
        }
    }
}
