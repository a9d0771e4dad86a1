//! Comments as each language has them.

use jar_sprout_layout::{Style, print};

use super::*;

#[track_caller]
fn check(form: CommentStyle, escape: fn(&str) -> Cow<'_, str>, said: &str, expected: &str) {
    let comment = Comment { form, width: 40, escape, deprecated: Some(|_| "Deprecated.".to_owned()) };
    let docs = Docs::new(said);
    let printed = comment.of(&docs, 0).map(|doc| print(&doc, &Style::default()));
    assert_eq!(printed.unwrap_or_default(), expected);
}

#[test]
fn one_line_and_several() {
    check(CommentStyle::Stars, in_stars, "A hive.", "/** A hive. */");
    check(CommentStyle::Lines("/// "), as_it_is, "A hive.\nOf bees.", "/// A hive. Of bees.");
    check(CommentStyle::Summary, in_xml, "A <b>", "/// <summary>A &lt;b&gt;</summary>");
    check(CommentStyle::Quotes, in_quotes, "A \"hive\"", "\"\"\"A \"hive\\\"\"\"\"");
    let long = "A hive of the co-operative, as its keeper sees it.";
    check(
        CommentStyle::Stars,
        in_stars,
        long,
        "/**\n * A hive of the co-operative, as its\n * keeper sees it.\n */",
    );
    check(CommentStyle::Lines("// "), as_it_is, "", "");
}

#[test]
fn a_summary_is_a_sentence_where_the_guide_says_so() {
    check(CommentStyle::Quotes, in_quotes, "A hive", "\"\"\"A hive.\"\"\"");
    check(
        CommentStyle::Javadoc,
        in_javadoc,
        "A hive (new)\n\nOf bees",
        "/**\n * A hive (new).\n *\n * <p>Of bees\n */",
    );
    check(
        CommentStyle::Javadoc,
        in_javadoc,
        "One of:\n- a",
        "/**\n * One of:\n *\n * <ul>\n *   <li>a\n * </ul>\n */",
    );
    check(
        CommentStyle::Quotes,
        in_quotes,
        "See https://honey.example/a",
        "\"\"\"See https://honey.example/a\"\"\"",
    );
    check(CommentStyle::Stars, in_stars, "A hive", "/** A hive */");
    let long = "Weight, e.g. that of the hive. Measured in the evening";
    check(
        CommentStyle::Quotes,
        in_quotes,
        long,
        "\"\"\"Weight, e.g. that of the hive.\n\nMeasured in the evening\n\"\"\"",
    );
}

#[test]
fn paragraphs_and_items_stay_apart() {
    check(
        CommentStyle::Lines("// "),
        as_it_is,
        "One.\n\nTwo:\n- a\n- b",
        "// One.\n//\n// Two:\n// - a\n// - b",
    );
}

#[test]
fn lists_are_those_of_the_language() {
    let said = "Two:\n- a hive that has a long tale of its own\n- b\n\nEnd.";
    check(
        CommentStyle::Lines("/// "),
        as_it_is,
        said,
        "/// Two:\n/// - a hive that has a long tale of its\n///   own\n/// - b\n///\n/// End.",
    );
    check(
        CommentStyle::GoLines,
        as_it_is,
        said,
        "// Two:\n//   - a hive that has a long tale of\n//     its own\n//   - b\n//\n// End.",
    );
    check(
        CommentStyle::Javadoc,
        in_javadoc,
        "Two:\n- a\n- b\n\nEnd.",
        "/**\n * Two:\n *\n * <ul>\n *   <li>a\n *   <li>b\n * </ul>\n *\n * <p>End.\n */",
    );
    check(
        CommentStyle::Summary,
        in_xml,
        "- a\n\nEnd.",
        "/// <summary>\n/// <list type=\"bullet\">\n/// <item>a</item>\n/// </list>\n///\n/// \
         <para>End.</para>\n/// </summary>",
    );
}

#[test]
fn code_and_links_are_those_of_the_language() {
    let said = "See `a<b>` in [the map](https://example.org/?a&b), not [this](x) or `";
    assert_eq!(
        in_xml(said),
        "See <c>a&lt;b&gt;</c> in <see href=\"https://example.org/?a&amp;b\">the map</see>, not [this](x) or `"
    );
    assert_eq!(
        in_javadoc(said),
        "See {@code a<b>} in <a href=\"https://example.org/?a&amp;b\">the map</a>, not [this](x) or `"
    );
    assert_eq!(in_javadoc("`{@x}`"), "<code>&#123;&#64;x&#125;</code>");
    assert_eq!(in_go(said), "See a<b> in the map (https://example.org/?a&b), not [this](x) or `");
}

#[test]
fn why_something_is_deprecated_is_what_says_so() {
    let warning = |said: &str| warning(&Docs::new(said));
    assert_eq!(warning("The weight.\n\nUse `kg`."), "Use `kg`.");
    assert_eq!(warning("DEPRECATED: since May, read `kg`."), "Since May, read `kg`.");
    assert_eq!(warning("Deprecated."), "Deprecated by the API.");
    assert_eq!(warning("The weight that is used."), "Deprecated by the API.");
}

#[test]
fn a_quote_behind_a_backslash_closes_no_docstring() {
    assert_eq!(in_quotes("x\\\""), "x\\\\\\\"");
    assert_eq!(in_quotes("x\\\\\""), "x\\\\\\\\\\\"");
    assert_eq!(in_quotes("\"\"\"\"\"\""), "\\\"\\\"\\\"\\\"\\\"\\\"");
}

#[test]
fn nothing_ends_a_comment() {
    check(CommentStyle::Stars, in_stars, "a */ b /* c", "/** a *&#47; b /&#42; c */");
    check(CommentStyle::Javadoc, in_javadoc, "\\u002a/ {@x}", "/** &#92;u002a/ &#123;&#64;x&#125; */");
    check(CommentStyle::Quotes, in_quotes, "\"\"\" + x\\", "\"\"\"\\\"\\\"\\\" + x\\\\\"\"\"");
    check(CommentStyle::Lines("// "), as_it_is, "a\u{2028}b\u{202E}c\rd", "// a b c d");
}
