package fixshelf.render;

import fixshelf.language.Expr;
import fixshelf.type.Type;
import java.util.List;

/// The parts of a separated text, put together again in another order or without repeats: what no
/// function of plain text and no pattern can say, so that each language takes the text apart in its
/// own way.
final class SqlParts {
    private SqlParts() {}

    static void addTo(SqlLanguage language) {
        language.say("sort_parts", a -> written(language, a, true));
        language.say("unique_parts", a -> written(language, a, false));
    }

    private static Sql written(SqlLanguage language, List<Expr> a, boolean sorted) {
        if (!(a.get(1) instanceof Expr.Literal(String separator, Type _))) {
            throw language.cannot(
                    "the separator comes through a parameter.",
                    "Copy it as an expression, with the separator filled in.");
        }
        String text = language.sql(a.getFirst()).text();
        return sorted ? language.sortedParts(text, separator) : language.uniqueParts(text, separator);
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
    private static final int SET_ASIDE = 0xFDD0;
}
