package fixshelf.render.sql;

import fixshelf.language.tree.Expr;
import fixshelf.type.Type;
import java.util.List;

/// The parts of a separated text, put together again in another order or without repeats: what no
/// function of plain text and no pattern can say, so that each language takes the text apart in its
/// own way.
final class SqlParts {
    private SqlParts() {}

    /// How a language puts the parts of a text together again; null for null.
    interface Together {
        /// @param text code that gives the text
        /// @param separator as it stands in the text
        Sql write(String text, String separator);
    }

    static void addTo(SqlLanguage language, Together sorted, Together unique) {
        language.say("sort_parts", a -> written(language, a, sorted));
        language.say("unique_parts", a -> written(language, a, unique));
    }

    /// A language that has no lists says so.
    static void refuse(SqlLanguage language) {
        addTo(language, (_, _) -> none(language), (_, _) -> none(language));
    }

    private static Sql none(SqlLanguage language) {
        throw language.cannot(
                "it has no lists of parts.", "Sort the parts, or take their repeats, in another language before.");
    }

    private static Sql written(SqlLanguage language, List<Expr> a, Together together) {
        if (!(a.get(1) instanceof Expr.Literal(String separator, Type _))) {
            throw language.cannot(
                    "the separator comes through a parameter.",
                    "Copy it as an expression, with the separator filled in.");
        }
        return together.write(language.sql(a.getFirst()).text(), separator);
    }

    /// The parts as they stand inside a list of texts in JSON, for engines that make a table of
    /// one. Signs that JSON writes otherwise may be the separator, which is set aside before where
    /// it could be taken for one of them.
    static String asJson(SqlLanguage language, String text, String separator) {
        boolean plain = separator
                .codePoints()
                .noneMatch(c -> c < ' ' || c < 128 && Character.isLetterOrDigit(c) || c == '"' || c == '\\');
        String mark = language.text(plain ? separator : Character.toString(SET_ASIDE));
        String marked = plain ? text : "replace(" + text + ", " + language.text(separator) + ", " + mark + ")";
        return "replace(json_quote(" + marked + "), " + mark + ", '\",\"')";
    }

    /// A character that Unicode reserves.
    static final int SET_ASIDE = 0xFDD0;
}
