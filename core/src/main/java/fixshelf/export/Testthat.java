package fixshelf.export;

import fixshelf.export.Export.Exported;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.Parameter;
import fixshelf.problem.ProblemException;
import fixshelf.render.Comments;
import fixshelf.render.r.RLanguage;
import fixshelf.shelf.FixPage;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/// The cases of fixes as tests for testthat.
final class Testthat {
    private Testthat() {}

    static String of(List<Exported> fixes) {
        StringBuilder out = new StringBuilder("library(testthat)\nsource(\"fixes.R\", encoding = \"UTF-8\")\n");
        for (Exported exported : fixes) {
            List<String> lines = lines(exported);
            if (!lines.isEmpty()) {
                out.append("\ntest_that(\"the cases of ")
                        .append(exported.fix().name())
                        .append(" hold\", {\n  ")
                        .append(String.join("\n  ", lines))
                        .append("\n})\n");
            }
        }
        return out.toString();
    }

    /// How many cases of each fix are expectations.
    static Map<String, Integer> cases(List<Exported> fixes) {
        Map<String, Integer> cases = new LinkedHashMap<>();
        for (Exported exported : fixes) {
            long n = lines(exported).stream().filter(l -> !l.startsWith("#")).count();
            if (n > 0) {
                cases.put(exported.fix().name(), (int) n);
            }
        }
        return cases;
    }

    private static List<String> lines(Exported exported) {
        List<String> lines = new ArrayList<>();
        for (FixPage.Case example : exported.page().cases()) {
            if (Pytest.canBeCalled(exported, example)) {
                add(lines, exported, example);
            }
        }
        return lines;
    }

    /// A case with a value beyond what R can hold is left out; its fix stops there instead of giving another value.
    private static void add(List<String> lines, Exported exported, FixPage.Case example) {
        try {
            List<String> arguments = new ArrayList<>();
            for (Parameter parameter : exported.fix().parameters()) {
                Expr.Literal given = example.arguments().get(parameter.name().toLowerCase(Locale.ROOT));
                if (given != null) {
                    String name = arguments.isEmpty() ? "" : RLanguage.argumentName(parameter) + " = ";
                    arguments.add(name + RLanguage.literal(typed(given, parameter.type())));
                }
            }
            String call = RLanguage.functionName(exported.fix()) + "(" + String.join(", ", arguments) + ")";
            String expected =
                    RLanguage.literal(typed(example.expected(), exported.fix().returns()));
            lines.add("expect_equal(" + call + ", " + expected + ")");
        } catch (ProblemException e) {
            lines.add(Comments.line("#", "left out: " + e.problem().what()).strip());
        }
    }

    private static Expr.Literal typed(Expr.Literal literal, Type type) {
        return literal.value() == null ? new Expr.Literal(null, type) : literal;
    }
}
