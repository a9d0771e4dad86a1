//! The plan: a model with every name final in one language. Spelling only writes it down.

mod bases;
mod copies;
mod defaults;
mod dominators;
mod fate;
mod ident;
mod inside;
mod kind;
mod loops;
mod nesting;
mod nothing;
mod order;
mod scope;
mod tags;

use std::collections::{HashMap, HashSet};
use std::sync::OnceLock;

use foldhash::fast::RandomState;
use jar_sprout_model::{
    Case, Coding, Definition, Docs, Encoding, Enumeration, Field, Model, NamedType, NothingWords, Record,
    Root, Scalar, Slot, Type, TypeId, Union, UnionCase, WireName, Words, each,
};

pub(crate) use defaults::{DefaultSpelling, PlannedDefault};
use fate::Asked;
pub(crate) use fate::Fate;
pub(crate) use ident::Ident;
pub(crate) use ident::{
    camel_case, camel_case_with_initialisms, in_ascii, initialism, pascal_case, push_capitalised,
    screaming_case, small_words, snake_case,
};
use inside::inline_parts;
pub(crate) use kind::{CaseKind, ToldCase};
pub(crate) use nothing::PlannedNothing;
use scope::Scope;

use crate::prepare::{Abilities, Prepared, Times};
use crate::settings::{Absence, Nesting};

/// How a language makes identifiers.
pub(crate) struct Naming {
    /// Joins the words of a type's name.
    pub(crate) type_case: fn(&Words) -> String,
    /// Joins the words of a field's name; none where the code keeps the wire's keys.
    pub(crate) member_case: Option<fn(&Words) -> String>,
    /// Whether a word that a key writes in capitals, beside keys that do not, keeps them in a field's name.
    pub(crate) keeps_capitals: bool,
    /// Joins the words of an enum case's name.
    pub(crate) case_case: fn(&Words) -> String,
    /// Where the name of an enum's case must be the only one.
    pub(crate) cases: NamePlace,
    /// Joins the words of a union case's name.
    pub(crate) union_case: fn(&Words) -> String,
    /// Where the name of a union's case must be the only one.
    pub(crate) union_cases: NamePlace,
    /// Type names that are taken: by the language, or by what grown code uses.
    pub(crate) reserved_types: &'static [&'static str],
    /// Member names that clash with members every type has.
    pub(crate) reserved_members: &'static [&'static str],
    /// Names that the case of an enum may not have beside those: of what holds its text.
    pub(crate) reserved_cases: &'static [&'static str],
    /// Names that a union's case may not have.
    pub(crate) reserved_union_cases: &'static [&'static str],
    /// Members that the case for an unknown tag has, or a union itself: no field of all cases can be called so. None where
    /// such fields are not reached through the union.
    pub(crate) unshared: Option<&'static [&'static str]>,
    /// What the case of a union is.
    pub(crate) union_case_kind: UnionCaseKind,
    /// Whether a member may be called as the type it stands in.
    pub(crate) own_name: OwnName,
    /// What has a name of its own where words stand for nothing.
    pub(crate) nothing: NothingNames,
    /// Makes an identifier of a name that is none as it is: a keyword, say.
    pub(crate) escape: fn(String) -> String,
    /// Joins the words of a function's name.
    pub(crate) function_case: fn(&Words) -> String,
}

/// Where the name of a type's part stands.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum NamePlace {
    /// Inside the type: `QueenStatus.LAYING`.
    Type,
    /// Beside all types, with the type's name in front: `QueenStatusLaying`.
    Package,
}

/// What the case of a union is.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum UnionCaseKind {
    /// A type inside the union's, which would hide one of its name.
    Type,
    /// A value, which may be called as the type it holds.
    Value,
}

/// What has a name of its own where words stand for nothing, in a language that declares something for them.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum NothingNames {
    /// The words: `NaIsNothing`.
    ByWords,
    /// A type with the words: `NumberOrNa`.
    ByType,
}

/// Whether a member may be called as the type it stands in.
#[derive(Debug, Clone, Copy, PartialEq, Eq)]
pub(crate) enum OwnName {
    /// It may.
    Free,
    /// It would be taken for the type's constructor, or the like.
    Taken,
}

/// A model in the names of one language.
pub struct Plan<'m> {
    pub(crate) model: &'m Model,
    pub(crate) types: Vec<PlannedType<'m>>,
    /// What is asked for; first what a whole sample is.
    pub(crate) roots: Vec<PlannedRoot<'m>>,
    /// How times are written.
    pub(crate) times: Times,
    /// What reads and writes a type or a word for nothing.
    pub(crate) nothings: Vec<PlannedNothing<'m>>,
    /// What reads and writes whole samples.
    entry: PlannedEntry,
    /// By type of the wire, its copy; and the other way round. Empty where there are none.
    copies: HashMap<TypeId, TypeId>,
    wires: HashMap<TypeId, TypeId>,
    /// By type, the one that it stands inside; empty where none does.
    hosts: Vec<Option<TypeId>>,
    /// By type, whether it writes its tag by itself.
    writes_tag: Vec<bool>,
    /// By type, the unions that it is a tagged case of.
    unions: HashMap<TypeId, Vec<TypeId>>,
    /// By union, the fields that all of its cases have alike.
    shared: HashMap<TypeId, Vec<Ident>>,
    /// The records that others extend.
    bases: HashSet<TypeId>,
    /// By type, whether it has a number with a fraction in it, once that was asked.
    has_floats: OnceLock<Vec<bool>>,
    /// Whether integers were seen that a double does not keep.
    pub(crate) leaves_doubles: bool,
    /// What all of it is called.
    title: Option<Ident>,
    ids: HashMap<Ident, TypeId, RandomState>,
    /// By type, which loop of types that hold each other directly it is in; each has a number of its own otherwise.
    loops: Vec<usize>,
}

/// What stands for a whole sample.
pub(crate) enum PlannedRoot<'m> {
    Named { id: TypeId, slot: &'m Slot },
    Alias { ident: Ident, slot: &'m Slot },
}

impl<'m> PlannedRoot<'m> {
    /// What it is.
    pub(crate) fn slot(&self) -> &'m Slot {
        match self {
            Self::Named { slot, .. } | Self::Alias { slot, .. } => slot,
        }
    }
}

/// What reads whole samples, and writes them.
struct PlannedEntry {
    /// Where its functions stand, in languages where they stand in something.
    home: Ident,
    /// By root, `decodeHives` and `encodeHives`; none for one that was there before.
    functions: Vec<Option<[Ident; 2]>>,
    /// A program that uses them for the first root: `ReadHivePage`.
    program: Ident,
}

/// A named type.
#[derive(Debug)]
pub struct PlannedType<'m> {
    pub(crate) id: TypeId,
    pub(crate) ident: Ident,
    pub(crate) docs: &'m Docs,
    pub(crate) definition: PlannedDefinition<'m>,
    /// What holds the keys beyond the fields of a record, where they are kept.
    pub(crate) extras: Option<PlannedExtras<'m>>,
    /// Whether it is an enum that has no values but those known.
    pub(crate) is_closed: bool,
    /// Whether it is sent to change a part of something.
    pub(crate) is_patch: bool,
    /// The record that it extends, where a language has it so.
    base: Option<TypeId>,
}

/// What a named type is.
#[derive(Debug)]
pub(crate) enum PlannedDefinition<'m> {
    Record(Vec<PlannedField<'m>>),
    Enumeration(Vec<PlannedCase<'m>>),
    Union(PlannedUnion<'m>),
}

/// What holds the keys of a record beyond its fields.
#[derive(Debug)]
pub(crate) struct PlannedExtras<'m> {
    pub(crate) ident: Ident,
    /// What stands under each of them.
    pub(crate) slot: &'m Slot,
    /// A map of that.
    pub(crate) map: Slot,
}

/// What that is called: the keyword of JSON Schema that says it is there.
const EXTRAS: &str = "additionalProperties";

/// A field of a record.
#[derive(Debug)]
pub(crate) struct PlannedField<'m> {
    pub(crate) ident: Ident,
    pub(crate) wire: &'m WireName,
    pub(crate) slot: &'m Slot,
    /// How the wire writes what stands there.
    pub(crate) encoding: &'m Encoding,
    pub(crate) docs: &'m Docs,
    /// What becomes of it.
    pub(crate) fate: Fate<'m>,
}

impl PlannedField<'_> {
    /// Whether the wire has it as a text that is JSON itself.
    pub(crate) fn is_json_in_text(&self) -> bool {
        *self.encoding == Encoding::JsonInText
    }

    /// Whether the wire has the value as it is, and nothing else in its place.
    pub(crate) fn is_plain(&self) -> bool {
        self.coding().is_none() && *self.encoding == Encoding::Plain
    }

    /// The words that the wire has in place of nothing.
    pub(crate) fn nothing_words(&self) -> Option<&NothingWords> {
        self.encoding.nothing_words()
    }

    /// What the field holds that the wire writes as something else, where an annotation can say so.
    pub(crate) fn coding(&self) -> Option<Coding> {
        match self.slot.ty {
            Type::Scalar(Scalar::Coded(coding)) if !self.fate.tells_null() && !self.is_json_in_text() => {
                Some(coding)
            }
            Type::Scalar(_)
            | Type::Any
            | Type::Constant(_)
            | Type::List(_)
            | Type::Map(_)
            | Type::Tuple(_)
            | Type::Named(_) => None,
        }
    }
}

/// A known value of an enum.
#[derive(Debug)]
pub(crate) struct PlannedCase<'m> {
    pub(crate) ident: Ident,
    pub(crate) wire: &'m WireName,
    pub(crate) docs: &'m Docs,
}

/// One of several types.
#[derive(Debug)]
pub(crate) struct PlannedUnion<'m> {
    pub(crate) tag: Option<&'m WireName>,
    pub(crate) cases: Vec<PlannedUnionCase<'m>>,
    /// The case for a tag that no sample had, where cases stand beside all types.
    pub(crate) unknown: Option<Ident>,
}

/// One case of a union.
#[derive(Debug)]
pub(crate) struct PlannedUnionCase<'m> {
    pub(crate) ident: Ident,
    pub(crate) tag: Option<&'m WireName>,
    /// The key that tells it from the other objects among the cases of a union without a tag.
    pub(crate) key: Option<&'m WireName>,
    pub(crate) slot: &'m Slot,
}

impl<'m> Plan<'m> {
    /// The plan of a model that was prepared for these abilities.
    pub(crate) fn of(prepared: &'m Prepared<'_>, naming: &Naming, abilities: &Abilities) -> Self {
        let model = prepared.model();
        let pairs = &prepared.pairs;
        let mut scope = Scope::of_types(naming);
        let title = model.title.as_ref().map(|title| Scope::of_types(naming).declare_type(title, &[]));
        let roots = model.roots().map(|Root { name, slot }| match &slot.ty {
            // Null at the root is for whoever holds the value: it makes no type of its own.
            Type::Named(id) => PlannedRoot::Named { id: *id, slot },
            Type::Any
            | Type::Scalar(_)
            | Type::Constant(_)
            | Type::List(_)
            | Type::Map(_)
            | Type::Tuple(_) => PlannedRoot::Alias { ident: scope.declare_type(name, &[]), slot },
        });
        let roots: Vec<PlannedRoot<'_>> = roots.collect();
        let idents: Vec<Ident> = model
            .types()
            .map(|(_, NamedType { name, alternatives, .. })| scope.declare_type(name, alternatives))
            .collect();
        let first_copy = pairs.first().map_or(usize::MAX, |(_, copy)| copy.index());
        let (absence, has_defaults) = (prepared.absence, abilities.fills_in);
        let mut planner = Planner {
            model,
            naming,
            package: scope,
            idents: &idents,
            tags: model.tags(),
            absence,
            has_defaults,
            first_copy,
        };
        let named: Vec<_> = model.types().zip(&idents).map(|((id, ty), ident)| (id, ty, ident)).collect();
        // The names in most types are their own; those of cases may stand beside all types.
        let alone = each(named.clone(), |(id, ty, ident)| planner.plan_alone(id, ty, ident));
        let mut types: Vec<_> =
            named.into_iter().zip(alone).map(|(ty, known)| planner.plan_type(ty, known)).collect();
        let entry = plan_entry(&mut planner, title.as_ref(), &roots);
        let nothings = nothing::plan(model, naming.nothing, |name| planner.package.declare_type(name, &[]));
        let parts: Vec<Vec<usize>> = types
            .iter()
            .map(|ty| inline_parts(&ty.definition).iter().map(|id| id.index()).collect())
            .collect();
        let loops = loops::loops(&parts);
        let ids = idents.into_iter().zip((0..).map(TypeId::from_index)).collect();
        let copies = pairs.iter().copied().collect();
        let wires = pairs.iter().map(|(wire, copy)| (*copy, *wire)).collect();
        let writes_tag = tags::writes_tag(&types, &roots);
        let unions = tags::unions(&types);
        let bases = bases::keep_bases(&mut types);
        let leaves_doubles = model.scalars().any(Scalar::leaves_doubles);
        let mut plan = Self {
            model,
            ids,
            loops,
            types,
            roots,
            nothings,
            entry,
            copies,
            wires,
            hosts: Vec::new(),
            writes_tag,
            unions,
            shared: HashMap::new(),
            bases,
            has_floats: OnceLock::new(),
            leaves_doubles,
            title,
            times: prepared.times,
        };
        if let Some(taken) = naming.unshared {
            plan.shared = plan.shared_by_union(taken);
        }
        if abilities.nesting == Nesting::Inside {
            plan.nest(naming);
        }
        plan
    }

    /// A type's identifier.
    pub(crate) fn ident(&self, id: TypeId) -> &Ident {
        &self.types[id.index()].ident
    }

    /// A type.
    pub(crate) fn get(&self, id: TypeId) -> &PlannedType<'m> {
        &self.types[id.index()]
    }

    /// The type of a name.
    pub(crate) fn find(&self, name: &str) -> Option<&PlannedType<'m>> {
        self.ids.get(name).map(|id| self.get(*id))
    }

    /// What the root is called.
    pub(crate) fn root_name(&self) -> &str {
        self.root_ident(&self.roots[0]).as_str()
    }

    /// What a root is called.
    pub(crate) fn root_ident<'p>(&'p self, root: &'p PlannedRoot<'m>) -> &'p Ident {
        match root {
            PlannedRoot::Named { id, .. } => self.ident(*id),
            PlannedRoot::Alias { ident, .. } => ident,
        }
    }

    /// The type of a root, in languages that can name any type; `spell` writes a slot's.
    pub(crate) fn root_type(&self, root: &PlannedRoot<'m>, spell: impl FnOnce(&'m Slot) -> String) -> String {
        match root {
            PlannedRoot::Named { slot, .. } => spell(slot),
            PlannedRoot::Alias { ident, .. } => ident.to_string(),
        }
    }

    /// The roots with the names of what reads and writes them.
    pub(crate) fn entries(&self) -> impl Iterator<Item = (&PlannedRoot<'m>, &[Ident; 2])> {
        self.roots
            .iter()
            .zip(&self.entry.functions)
            .filter_map(|(root, functions)| Some((root, functions.as_ref()?)))
    }

    /// Where the functions stand that read and write whole samples.
    pub(crate) fn entry_home(&self) -> &Ident {
        &self.entry.home
    }

    /// The first root with the names of what reads and writes it.
    pub(crate) fn first_entry(&self) -> (&PlannedRoot<'m>, &[Ident; 2]) {
        self.entries().next().expect("the first root is named")
    }

    /// What a program is called that uses them for the first root.
    pub(crate) fn program(&self) -> &Ident {
        &self.entry.program
    }

    /// The same without the names of what reads and writes other roots than the first.
    pub(crate) fn with_first_entry(mut self) -> Self {
        self.entry.functions.truncate(1);
        self
    }

    /// What all of it is called: a file that holds it is named so.
    pub(crate) fn title(&self) -> &str {
        self.title.as_ref().map_or_else(|| self.root_name(), Ident::as_str)
    }
}

/// Names what reads and writes whole samples, beside all types.
fn plan_entry(
    planner: &mut Planner<'_, '_, '_>,
    title: Option<&Ident>,
    roots: &[PlannedRoot<'_>],
) -> PlannedEntry {
    let Planner { naming, package, idents, .. } = planner;
    let ident = |root: &PlannedRoot<'_>| match root {
        PlannedRoot::Named { id, .. } => idents[id.index()].as_str().to_owned(),
        PlannedRoot::Alias { ident, .. } => ident.as_str().to_owned(),
    };
    let title = title.map_or_else(|| ident(&roots[0]), |title| title.as_str().to_owned());
    let home = package.declare_type(&Words::split(&title).with_word("json"), &[]);
    let mut function = |verb: &str, root: &str| {
        let name = Words::split(root).prefixed(&Words::split(verb));
        package.declare_function(&name, naming.function_case)
    };
    let mut named = HashSet::new();
    let functions = roots.iter().map(ident).map(|root| {
        let is_new = named.insert(root.clone());
        is_new.then(|| ["decode", "encode"].map(|verb| function(verb, &root)))
    });
    let functions = functions.collect();
    let program = Words::split(&ident(&roots[0])).prefixed(&Words::split("read"));
    PlannedEntry { home, functions, program: package.declare_type(&program, &[]) }
}

/// What is known while types are planned: all their names.
struct Planner<'m, 'n, 'i> {
    model: &'m Model,
    naming: &'n Naming,
    package: Scope<'n>,
    idents: &'i [Ident],
    /// The keys that tell which case of a union a record is.
    tags: HashSet<(TypeId, &'m WireName)>,
    /// Whether null is told from nothing.
    absence: Absence,
    /// Whether what is absent gets its default value.
    has_defaults: bool,
    /// The first type that is the plain copy of one of the wire.
    first_copy: usize,
}

impl<'m> Planner<'m, '_, '_> {
    /// A type whose parts have names of their own; none where they may stand beside all types.
    fn plan_alone(
        &self,
        id: TypeId,
        ty: &'m NamedType,
        ident: &Ident,
    ) -> Option<(PlannedDefinition<'m>, Option<PlannedExtras<'m>>)> {
        let (fields, extras) = match &ty.definition {
            Definition::Record(Record { fields, extras }) => (fields, extras),
            Definition::Enumeration(known) if self.naming.cases == NamePlace::Type => {
                let mut own = Scope::of_cases(self.naming, ident);
                let cases = plan_cases(&known.cases, |name| own.declare_case(name));
                return Some((PlannedDefinition::Enumeration(cases), None));
            }
            Definition::Enumeration(_) | Definition::Union(_) => return None,
        };
        let tells_absence = match self.absence {
            Absence::Untold => false,
            Absence::ToldInPatches => ty.is_patch,
            Absence::Told => true,
        };
        let asked = Asked { tells_absence, has_defaults: self.has_defaults && !ty.is_patch };
        let is_copy = id.index() >= self.first_copy;
        let mut scope = Scope::of_members(self.naming, ident, is_copy);
        let fields = self.plan_fields(id, fields, &mut scope, asked);
        let extras = extras.as_ref().map(|slot| {
            let name = Words::split(EXTRAS);
            let text = scope.member_text(&WireName::new(EXTRAS), &name);
            let map = Slot::of(Type::Map(Box::new(slot.clone())));
            PlannedExtras { ident: scope.declare_member(text, &name), slot, map }
        });
        Some((PlannedDefinition::Record(fields), extras))
    }

    /// A type, of which what could be planned alone is known.
    fn plan_type(
        &mut self,
        (id, ty, ident): (TypeId, &'m NamedType, &Ident),
        known: Option<(PlannedDefinition<'m>, Option<PlannedExtras<'m>>)>,
    ) -> PlannedType<'m> {
        let (definition, extras) = match (known, &ty.definition) {
            (Some(known), _) => known,
            (None, Definition::Enumeration(Enumeration { cases, is_closed: _ })) => {
                let case_case = self.naming.case_case;
                let declare = |name: &Words| self.package.declare_part(ident, name, case_case);
                (PlannedDefinition::Enumeration(plan_cases(cases, declare)), None)
            }
            (None, Definition::Union(union)) => {
                (PlannedDefinition::Union(self.plan_union(union, ident)), None)
            }
            (None, Definition::Record(_)) => unreachable!("all records are planned"),
        };
        let is_closed = matches!(&ty.definition, Definition::Enumeration(known) if known.is_closed);
        let base = self.model.base(id);
        let (docs, is_patch) = (&ty.docs, ty.is_patch);
        PlannedType { id, ident: ident.clone(), docs, definition, extras, base, is_closed, is_patch }
    }

    /// A field whose name is its key has it before one that needs a mapping all the same.
    fn plan_fields(
        &self,
        id: TypeId,
        fields: &'m [Field],
        scope: &mut Scope<'_>,
        asked: Asked,
    ) -> Vec<PlannedField<'m>> {
        let keeps_capitals = scope.keeps_capitals(fields);
        let texts: Vec<Result<Ident, String>> = fields
            .iter()
            .map(|Field { wire, name, .. }| {
                let name = if keeps_capitals { &name.in_capitals_of(wire.as_str()) } else { name };
                let text = scope.member_text(wire, name);
                if text == wire.as_str() { Ok(scope.declare_member(text, name)) } else { Err(text) }
            })
            .collect();
        let mut plan = |(field, ident): (&'m Field, Result<Ident, String>)| PlannedField {
            ident: ident.unwrap_or_else(|text| scope.declare_member(text, &field.name)),
            wire: &field.wire,
            slot: &field.slot,
            encoding: &field.encoding,
            docs: &field.docs,
            fate: Fate::of(self.model, field, self.tags.contains(&(id, &field.wire)), asked),
        };
        fields.iter().zip(texts).map(&mut plan).collect()
    }

    fn plan_union(&mut self, union: &'m Union, owner: &Ident) -> PlannedUnion<'m> {
        let Union { tag, cases } = union;
        let parts = cases.iter().flat_map(|case| case.slot.ty.named()).map(|id| &self.idents[id.index()]);
        let mut own = Scope::of_union_cases(self.naming, owner, parts);
        let union_case = self.naming.union_case;
        let keys = self.model.telling_keys(union);
        let mut plan = |(UnionCase { name, tag, slot }, key): (&'m UnionCase, Option<&'m WireName>)| {
            let ident = match self.naming.union_cases {
                NamePlace::Type => own.declare_union_case(name),
                NamePlace::Package => self.package.declare_part(owner, name, union_case),
            };
            PlannedUnionCase { ident, tag: tag.as_ref(), key, slot }
        };
        let cases = cases.iter().zip(keys).map(&mut plan).collect();
        let needs_unknown = tag.is_some() && self.naming.union_cases == NamePlace::Package;
        let unknown = || self.package.declare_part(owner, &Words::split("unknown"), union_case);
        PlannedUnion { tag: tag.as_ref(), cases, unknown: needs_unknown.then(unknown) }
    }
}

fn plan_cases(cases: &[Case], mut declare: impl FnMut(&Words) -> Ident) -> Vec<PlannedCase<'_>> {
    cases.iter().map(|Case { wire, name, docs }| PlannedCase { ident: declare(name), wire, docs }).collect()
}
