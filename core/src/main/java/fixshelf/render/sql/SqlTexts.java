package fixshelf.render.sql;

import fixshelf.language.tree.Expr;
import fixshelf.type.Type;
import java.util.List;

/// Parts of texts in SQL, with the common functions of a language.
final class SqlTexts {
    private final SqlLanguage language;

    private SqlTexts(SqlLanguage language) {
        this.language = language;
    }

    static void addTo(SqlLanguage language) {
        SqlTexts texts = new SqlTexts(language);
        language.say("substring", texts::substring);
        language.say("concat_ws", texts::concatWs);
        language.say("remove_prefix", texts::removePrefix);
        language.say("remove_suffix", texts::removeSuffix);
        language.say("split_part", texts::splitPart);
    }

    /// Where so many parts exist, the one with that number, which the language itself can find.
    private Sql splitPart(List<Expr> a) {
        if (!(a.get(2) instanceof Expr.Literal(Long number, Type _))) {
            throw language.cannot(
                    "the number of the part comes through a parameter.", "Copy it with the number filled in.");
        }
        Sql part = language.part(a.get(0), a.get(1), number);
        if (number == 1 || number == -1) {
            return part;
        }
        Sql text = language.sql(a.get(0));
        String without = language.length(Sql.call("replace", text, language.sql(a.get(1)), Sql.atom("''")))
                .text();
        String least = a.get(1) instanceof Expr.Literal(String sign, Type _)
                ? String.valueOf((Math.abs(number) - 1) * sign.codePointCount(0, sign.length()))
                : (Math.abs(number) - 1) + " * " + language.lengthOf(a.get(1)).text();
        return Sql.caseWhen(Sql.atom(language.length(text).text() + " - " + without + " >= " + least), part);
    }

    /// By the SQL standard: places before the text count but hold nothing. Numbers are brought into the range that
    /// engines take, which is more than any text is long.
    private Sql substring(List<Expr> a) {
        boolean plain = isAtLeast(a.get(1), 1) && (a.size() < 3 || isAtLeast(a.get(2), 0));
        if (plain) {
            return Sql.call("substr", language.all(a));
        }
        Sql from = language.bounded(language.sql(a.get(1)), 1);
        if (a.size() < 3) {
            return language.known(a.subList(1, 2), Sql.call("substr", language.sql(a.get(0)), from));
        }
        String before = language.least() + "("
                + language.bounded(language.sql(a.get(1)), -1_000_000_000).text() + " - 1, 0)";
        String length = language.greatest() + "("
                + language.bounded(language.sql(a.get(2)), 0).text() + " + " + before + ", 0)";
        return language.known(a.subList(1, 3), Sql.call("substr", language.sql(a.get(0)), from, Sql.atom(length)));
    }

    private static boolean isAtLeast(Expr expr, long least) {
        return expr instanceof Expr.Literal(Long n, Type _) && n >= least && n <= Integer.MAX_VALUE;
    }

    private Sql concatWs(List<Expr> arguments) {
        List<Expr> parts = arguments.subList(1, arguments.size());
        Sql any = new Sql(Sql.call("coalesce", language.all(parts)).text() + " IS NOT NULL", Sql.COMPARE);
        return Sql.caseWhen(any, Sql.call("concat_ws", language.pieces(arguments)));
    }

    private Sql removePrefix(List<Expr> a) {
        Sql starts = language.form("starts_with").write(a);
        return replacedWhere(a, starts, Sql.call("substr", language.sql(a.get(0)), afterLength(a.get(1))));
    }

    private Sql removeSuffix(List<Expr> a) {
        Sql rest = Sql.infix(language.length(language.sql(a.get(0))), "-", language.lengthOf(a.get(1)), Sql.OTHER);
        return replacedWhere(
                a,
                language.form("ends_with").write(a),
                Sql.call("substr", language.sql(a.get(0)), Sql.atom("1"), rest));
    }

    /// `CASE WHEN found THEN changed ELSE text END`, where a null second argument gives null.
    private Sql replacedWhere(List<Expr> a, Sql found, Sql changed) {
        if (a.get(1) instanceof Expr.Literal) {
            return Sql.caseWhen(found, changed, language.sql(a.get(0)));
        }
        String known = language.sql(a.get(1)).at(Sql.OTHER) + " IS NOT NULL";
        return Sql.caseOf(List.of(
                "WHEN " + found.text() + " THEN " + changed.text(),
                "WHEN " + known + " THEN " + language.sql(a.get(0)).text()));
    }

    private Sql afterLength(Expr part) {
        if (part instanceof Expr.Literal(String text, Type _)) {
            return Sql.atom(String.valueOf(text.codePointCount(0, text.length()) + 1));
        }
        return Sql.infix(language.length(language.sql(part)), "+", Sql.atom("1"), Sql.OTHER);
    }
}
