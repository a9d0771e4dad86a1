//! Types around one value: open enums, and what stands around the cases of a union.

use jar_sprout_layout::{Doc, cat, group, line, lines, nest, paragraphs, soft, text};

use super::Sheet;
use super::settings::{CSharpOptions, Level, Library, Types};
use super::{block, call, members, names};
use crate::plan::{Ident, PlannedCase};
use crate::spell::Helper;
use crate::spell::docs;

const TEXT_CONVERTER: Helper = Helper { name: "TextConverter", text: include_str!("TextConverter.cs") };
const OF_NEWTONSOFT: Helper =
    Helper { name: "TextConverter", text: include_str!("newtonsoft/TextConverter.cs") };
const OF_LEVEL_SEVEN: Helper = Helper { name: "TextConverter", text: include_str!("seven/TextConverter.cs") };

const ENUM_CONVERTER: Helper =
    Helper { name: "EnumMemberConverter", text: include_str!("EnumMemberConverter.cs") };

/// A text of its own type; one that is not known yet is kept as it is.
pub(super) fn enumeration(sheet: &mut Sheet<'_>, ident: &Ident, cases: &[PlannedCase<'_>]) -> Doc {
    sheet.needs.helpers.insert(match (sheet.options.library, sheet.options.level) {
        (Library::SystemTextJson, _) => TEXT_CONVERTER,
        (Library::Newtonsoft, Level::Seven) => OF_LEVEL_SEVEN,
        (Library::Newtonsoft, Level::Twelve) => OF_NEWTONSOFT,
    });
    sheet.needs.imports.insert(match sheet.options.library {
        Library::SystemTextJson => "System.Text.Json.Serialization",
        Library::Newtonsoft => "Newtonsoft.Json",
    });
    let case = |PlannedCase { ident: case, wire, docs }: &PlannedCase<'_>| {
        let literal = names::LITERAL.of(wire.as_str());
        let new = match sheet.options.level {
            Level::Seven => format!("new {ident}("),
            Level::Twelve => "new(".to_owned(),
        };
        let new = group(cat([text(new), nest(cat([soft(), text(literal)])), soft(), text(");")]));
        let value = nest(cat([line(), new]));
        let declaration = group(cat([text(format!("public static {ident} {case} {{ get; }} =")), value]));
        (super::ABOUT.comment.of(docs, 4), declaration)
    };
    let constants = docs::spaced(cases.iter().map(case));
    let parse = match sheet.options.level {
        Level::Seven => format!("new {ident}(text);"),
        Level::Twelve => "new(text);".to_owned(),
    };
    let parse = group(cat([
        text(format!("protected override {ident} Parse(string text) =>")),
        nest(cat([line(), text(parse)])),
    ]));
    let parent = nest(cat([line(), text(format!(": TextConverter<{ident}>"))]));
    let head = group(cat([text("internal sealed class Converter"), parent]));
    let converter = members(head, [parse]);
    let to_string = text("public override string ToString() => Value;");
    let attribute = text(format!("[JsonConverter(typeof({ident}.Converter))]"));
    let access = sheet.options.access;
    let declaration = match sheet.options.level {
        Level::Twelve => members(
            text(format!("{access} readonly record struct {ident}(string Value)")),
            [constants, to_string, converter],
        ),
        Level::Seven => {
            sheet.needs.imports.insert("System");
            members(
                text(format!("{access} readonly struct {ident} : IEquatable<{ident}>")),
                [constants, holder(ident.as_str(), "string"), to_string, equality(ident), converter],
            )
        }
    };
    lines([attribute, declaration])
}

/// ```csharp
/// [JsonConverter(typeof(EnumMemberConverter<QueenStatus>))]
/// public enum QueenStatus
/// {
///     [EnumMember(Value = "laying")]
///     Laying,
/// }
/// ```
pub(super) fn closed(sheet: &mut Sheet<'_>, ident: &Ident, cases: &[PlannedCase<'_>]) -> Doc {
    sheet.needs.imports.insert("System.Runtime.Serialization");
    let converter = match sheet.options.library {
        Library::SystemTextJson => {
            sheet.needs.imports.insert("System.Text.Json.Serialization");
            sheet.needs.helpers.insert(ENUM_CONVERTER);
            format!("EnumMemberConverter<{ident}>")
        }
        Library::Newtonsoft => {
            sheet.needs.imports.extend(["Newtonsoft.Json", "Newtonsoft.Json.Converters"]);
            "StringEnumConverter".to_owned()
        }
    };
    let case = |PlannedCase { ident: case, wire, docs }: &PlannedCase<'_>| {
        let attribute = text(format!("[EnumMember(Value = {})]", names::LITERAL.of(wire.as_str())));
        lines(super::ABOUT.comment.of(docs, 4).into_iter().chain([attribute, text(format!("{case},"))]))
    };
    let attribute = text(format!("[JsonConverter(typeof({converter}))]"));
    let head = text(format!("{} enum {ident}", sheet.options.access));
    lines([attribute, members(head, cases.iter().map(case))])
}

/// A constructor and the property that it sets.
fn holder(name: &str, ty: &str) -> Doc {
    let constructor = block(text(format!("public {name}({ty} value)")), [text("Value = value;")]);
    blank_between([constructor, text(format!("public {ty} Value {{ get; }}"))])
}

/// What a record has of itself.
fn equality(ident: &Ident) -> Doc {
    blank_between([
        text(format!("public bool Equals({ident} other) => Value == other.Value;")),
        text(format!("public override bool Equals(object obj) => obj is {ident} && Equals(({ident})obj);")),
        text("public override int GetHashCode() => Value == null ? 0 : Value.GetHashCode();"),
    ])
}

fn blank_between(docs: impl IntoIterator<Item = Doc>) -> Doc {
    paragraphs(docs)
}

/// The head of a type inside another; what it derives from stands behind its parameter, or below where there is no room.
fn derived(head: &str, parameter: &str, base: &str) -> Doc {
    /// Columns that a type inside another is indented by.
    const INDENT: usize = 4;
    let style = &super::ABOUT.style;
    let whole = head.len() + parameter.len() + "()".len() + INDENT;
    let head = call(head, &[parameter]);
    if whole > style.width {
        return cat([head, text(format!(" {base}"))]);
    }
    group(cat([head, nest(cat([line(), text(base.to_owned())]))]))
}

/// What stands around the value of a union's case.
pub(super) fn case(union: &Ident, name: &str, ty: &str, options: &CSharpOptions) -> Doc {
    match (options.level, options.types) {
        (Level::Twelve, Types::Records) => {
            derived(&format!("public sealed record {name}"), &format!("{ty} Value"), &format!(": {union};"))
        }
        (Level::Twelve, Types::Classes) => {
            let head = derived(
                &format!("public sealed class {name}"),
                &format!("{ty} value"),
                &format!(": {union}"),
            );
            members(head, [text(format!("public {ty} Value {{ get; }} = value;"))])
        }
        (Level::Seven, _) => {
            members(text(format!("public sealed class {name} : {union}")), [holder(name, ty)])
        }
    }
}
