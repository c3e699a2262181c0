package fixshelf.render.sql;

import fixshelf.language.tree.Expr;
import fixshelf.type.Type;
import java.util.List;
import java.util.stream.Collectors;

/// How SQL languages say NOT and IN, so that a null among the choices changes nothing.
final class SqlConditions {
    private final SqlLanguage sql;

    private SqlConditions(SqlLanguage sql) {
        this.sql = sql;
    }

    static void addTo(SqlLanguage language) {
        SqlConditions conditions = new SqlConditions(language);
        language.say("NOT", a -> conditions.not(a.getFirst()));
        language.say("IN", a -> conditions.in(a, ""));
    }

    private Sql not(Expr argument) {
        if (argument instanceof Expr.Call inner) {
            List<Expr> a = inner.arguments();
            switch (inner.function().name()) {
                case "IS NULL" -> {
                    return new Sql(sql.sql(a.getFirst()).at(Sql.OTHER) + " IS NOT NULL", Sql.COMPARE);
                }
                case "IS DISTINCT FROM" -> {
                    return sql.distinct(a, false);
                }
                case "LIKE" -> {
                    return sql.like(a, "NOT LIKE");
                }
                case "IN" -> {
                    return in(a, "NOT ");
                }
                default -> {}
            }
        }
        return new Sql("NOT " + sql.sql(argument).at(Sql.NOT), Sql.NOT);
    }

    private Sql in(List<Expr> arguments, String negation) {
        Expr value = arguments.getFirst();
        List<Expr> choices = arguments.stream()
                .skip(1)
                .filter(c -> !(c instanceof Expr.Literal(Object v, Type _) && v == null))
                .toList();
        boolean found = !negation.isEmpty();
        Sql missing = new Sql(sql.sql(value).at(Sql.OTHER) + " IS NOT NULL", Sql.COMPARE);
        Sql none = Sql.caseWhen(missing, Sql.atom(found ? "TRUE" : "FALSE"));
        if (choices.isEmpty()) {
            return none;
        }
        if (choices.size() == 1 && !(choices.getFirst() instanceof Expr.Literal)) {
            // In parentheses alone an inner query would be taken for a list of rows.
            Sql same = Sql.infix(sql.exact(value, false), found ? "<>" : "=", sql.sql(choices.getFirst()), Sql.COMPARE);
            return Sql.call("coalesce", same, none);
        }
        String list = choices.stream().map(c -> sql.sql(c).text()).collect(Collectors.joining(", ", "(", ")"));
        Sql in = new Sql(sql.exact(value, false).at(Sql.OTHER) + " " + negation + "IN " + list, Sql.COMPARE);
        boolean certain = choices.stream().allMatch(c -> c instanceof Expr.Literal);
        return certain ? in : Sql.call("coalesce", in, none);
    }
}
