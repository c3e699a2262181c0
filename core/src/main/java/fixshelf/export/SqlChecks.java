package fixshelf.export;

import fixshelf.export.Export.Exported;
import fixshelf.language.catalogue.Comparisons;
import fixshelf.language.emulation.Inliner;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.Parameter;
import fixshelf.problem.Outcome;
import fixshelf.render.Comments;
import fixshelf.render.Language;
import fixshelf.shelf.FixPage;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/// The cases of fixes as queries, one for each fix, that list those that fail: no row is good.
///
/// @param queries by fix
/// @param cases how many cases each of them runs
/// @param left comments on cases that are left out
record SqlChecks(Map<String, String> queries, Map<String, Integer> cases, List<String> left) {
    static SqlChecks of(Language language, List<Exported> fixes) {
        Map<String, String> queries = new LinkedHashMap<>();
        Map<String, Integer> cases = new LinkedHashMap<>();
        List<String> left = new ArrayList<>();
        for (Exported exported : fixes) {
            List<String> checks = new ArrayList<>();
            int number = 1;
            for (FixPage.Case example : exported.page().cases()) {
                if (Pytest.canBeCalled(exported, example)) {
                    Outcome<String> check = check(language, exported, example, number);
                    check.value().ifPresent(checks::add);
                    check.problems()
                            .forEach(p -> left.add(Comments.line(
                                    "--",
                                    "left out, a case of " + exported.fix().name() + ": " + p.what())));
                }
                number++;
            }
            if (!checks.isEmpty()) {
                queries.put(exported.fix().name(), String.join("\nUNION ALL ", checks));
                cases.put(exported.fix().name(), checks.size());
            }
        }
        return new SqlChecks(queries, cases, left);
    }

    /// All queries, one after the other.
    String text() {
        return "-- Every row is a case that fails; no row is good.\n" + String.join("", left)
                + String.join(
                        "\n", queries.values().stream().map(q -> q + ";\n").toList());
    }

    private static Outcome<String> check(Language language, Exported exported, FixPage.Case example, int number) {
        List<Expr> arguments = new ArrayList<>();
        for (Parameter parameter : exported.fix().parameters()) {
            Expr.Literal given = example.arguments().get(parameter.name().toLowerCase(Locale.ROOT));
            Expr.Literal value = given == null ? parameter.fallback().orElse(Expr.Literal.NULL) : given;
            arguments.add(value.value() == null ? new Expr.Literal(null, parameter.type()) : value);
        }
        Type returns = exported.fix().returns();
        Expr.Literal expected =
                example.expected().value() == null ? new Expr.Literal(null, returns) : example.expected();
        Outcome<String> call = language.definesFunctions()
                ? language.call(exported.fix(), arguments)
                : language.expression(Inliner.call(exported.fix(), arguments));
        Expr.Name got = new Expr.Name("got", returns);
        Outcome<String> wrong = language.expression(Comparisons.distinct(got, expected));
        String name = exported.fix().name().replace("'", "''");
        return call.then(c -> wrong.map(w ->
                "SELECT '" + name + "' AS fix, " + number + " AS case_no FROM (SELECT " + c + " AS got) t WHERE " + w));
    }
}
