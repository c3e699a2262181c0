package fixshelf.render.sql;

import fixshelf.language.tree.Expr;
import fixshelf.type.Type;
import java.util.List;
import java.util.Map;

/// How SQL languages say floating-point numbers. That sizes are fit has been looked at before, in the tree.
final class SqlFloats {
    private static final Map<String, String> SIGNS =
            Map.of("number +", "+", "number -", "-", "number *", "*", "number /", "/");

    private final SqlLanguage sql;

    private SqlFloats(SqlLanguage sql) {
        this.sql = sql;
    }

    static void addTo(SqlLanguage language) {
        SqlFloats floats = new SqlFloats(language);
        SIGNS.forEach((name, sign) -> language.say(name, a -> floats.operation(a, sign)));
        language.say("read number", a -> floats.read(a.getFirst()));
        language.say("approximate", a -> floats.cast(language.sql(a.getFirst())));
        for (String function : List.of("floor", "ceil", "round")) {
            SqlLanguage.Form exact = language.form(function);
            language.say(
                    function,
                    a -> a.getFirst().type() instanceof Type.Num ? floats.exactly(function, a) : exact.write(a));
        }
    }

    private Sql operation(List<Expr> a, String sign) {
        boolean product = sign.equals("*") || sign.equals("/");
        return Sql.infix(sql.sql(a.get(0)), sign, sql.sql(a.get(1)), product ? Sql.PRODUCT : Sql.SUM);
    }

    private Sql cast(Sql value) {
        return Sql.atom(sql.cast(value.text(), Type.NUMBER));
    }

    /// What is beyond the range is null, what is next to 0 is 0.
    private Sql read(Expr text) {
        // An optimizer may look at the text before its shape is known to be right.
        Sql bare = sql.sql(text);
        Sql number = sql.tryCast(bare, Type.NUMBER).orElseGet(() -> cast(bare));
        String size = Sql.call("abs", number).text();
        return Sql.caseOf(List.of(
                "WHEN " + size + " < 1e-300 THEN "
                        + sql.literal(0.0, Type.NUMBER).text(),
                "WHEN " + size + " <= 1e300 THEN " + number.text()));
    }

    private Sql exactly(String function, List<Expr> a) {
        Expr number = a.getFirst();
        String size = Sql.call("abs", sql.sql(number)).text();
        if (function.equals("round")) {
            int scale = sql.scale(a);
            String most = "1e" + Math.min(15, SqlNumbers.PRECISION - scale);
            Sql rounded = Sql.call("round", sql.shortest(number, scale), Sql.atom(String.valueOf(scale)));
            return Sql.caseWhen(
                    Sql.atom(size + " < " + most), SqlNumbers.of(sql).fitting(rounded, rounded, scale));
        }
        String name = function.equals("ceil") ? sql.ceiling() : function;
        Sql whole = Sql.call(name, sql.sql(number));
        return Sql.caseWhen(
                Sql.atom(size + " < " + Type.Num.MOST_WHOLE), Sql.atom(sql.cast(whole.text(), Type.INTEGER)));
    }
}
