package fixshelf.render.sql;

import fixshelf.language.tree.Expr;
import fixshelf.type.Type;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/// SQL languages without values for true and false, which are written from their documentation and not run here.
///
/// A condition is a condition; where a fix gives one as its result, it is written as 1 or 0.
abstract class DocumentedSql extends SqlLanguage {
    private static final Set<String> ON_VALUES =
            Set.of("=", "<>", "<", "<=", ">", ">=", "IN", "IS NULL", "IS DISTINCT FROM", "coalesce", "nullif");

    @Override
    public boolean isRunHere() {
        return false;
    }

    @Override
    Sql finished(Expr expr) {
        if (expr instanceof Expr.Literal(Boolean truth, Type _)) {
            return Sql.atom(truth ? "1" : "0");
        }
        Sql sql = sql(expr);
        if (!(expr.type() instanceof Type.Bool)) {
            return sql;
        }
        return Sql.caseOf(List.of("WHEN " + sql.text() + " THEN 1", "WHEN NOT " + sql.at(Sql.NOT) + " THEN 0"));
    }

    @Override
    Optional<Sql> before(Expr expr) {
        return switch (expr) {
            case Expr.Literal(Boolean truth, Type _) -> Optional.of(new Sql(truth ? "1 = 1" : "1 = 0", Sql.COMPARE));
            case Expr.Name(String name, Type.Bool _) -> Optional.of(new Sql(identifier(name) + " = 1", Sql.COMPARE));
            case Expr.Case(List<Expr.Branch> branches, Expr otherwise, Type.Bool _) ->
                Optional.of(conditions(branches, otherwise));
            case Expr.Call call
            when ON_VALUES.contains(call.function().name())
                    && call.arguments().stream().anyMatch(a -> a.type() instanceof Type.Bool) ->
                throw cannot("it has no values for true and false that could be compared.", "Use AND, OR and NOT.");
            case Expr.Literal _, Expr.Name _, Expr.Case _, Expr.Call _, Expr.FixCall _ -> Optional.empty();
        };
    }

    @Override
    Sql grouped(Expr.Name column) {
        return column.type() instanceof Type.Bool ? Sql.atom(identifier(column.name())) : super.grouped(column);
    }

    @Override
    Sql sorted(Expr.Name column) {
        return column.type() instanceof Type.Bool ? Sql.atom(identifier(column.name())) : super.sorted(column);
    }

    /// A CASE of conditions is one as a number that is compared.
    private Sql conditions(List<Expr.Branch> branches, Expr otherwise) {
        List<String> parts = new java.util.ArrayList<>();
        branches.forEach(b -> parts.add("WHEN " + sql(b.condition()).text() + " THEN "
                + finished(b.result()).text()));
        boolean open = otherwise instanceof Expr.Literal(Object value, Type _) && value == null;
        if (!open) {
            parts.add("ELSE " + finished(otherwise).text());
        }
        return new Sql(Sql.caseOf(parts).text() + " = 1", Sql.COMPARE);
    }

    /// What a pattern or a text that is not known yet would need.
    final String known(Expr argument) {
        if (argument instanceof Expr.Literal(String text, Type _)) {
            return text;
        }
        throw cannot("an argument comes through a parameter.", "Copy it as an expression, with it filled in.");
    }
}
