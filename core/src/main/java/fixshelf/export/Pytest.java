package fixshelf.export;

import fixshelf.export.Export.Exported;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.Parameter;
import fixshelf.render.pandas.PandasLanguage;
import fixshelf.shelf.FixPage;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;

/// The cases of fixes as tests for pytest.
final class Pytest {
    private Pytest() {}

    static String of(List<Exported> fixes) {
        StringBuilder body = new StringBuilder();
        for (Exported exported : fixes) {
            List<String> cases = exported.page().cases().stream()
                    .filter(c -> canBeCalled(exported, c))
                    .map(c -> one(exported, c))
                    .toList();
            if (!cases.isEmpty()) {
                String name = PandasLanguage.functionName(exported.fix());
                body.append("\n\n@pytest.mark.parametrize(\n    \"first, others, expected\",\n    [\n")
                        .append(String.join("", cases))
                        .append("    ],\n)\ndef test_")
                        .append(exported.fix().name())
                        .append("(first, others, expected):\n    assert answer(fixes.")
                        .append(name)
                        .append(", first, others, ")
                        .append(PandasLanguage.dtype(
                                exported.fix().parameters().getFirst().type()))
                        .append(") == expected\n");
            }
        }
        return """
            from datetime import date, datetime
            from decimal import Decimal

            import pandas as pd
            import pytest

            import fixes


            def answer(fix, first, others, dtype):
                value = fix(pd.Series([first], dtype=dtype), **others).iloc[0]
                return None if pd.isna(value) else value
            """ + body;
    }

    /// How many cases of each fix are tests.
    static Map<String, Integer> cases(List<Exported> fixes) {
        Map<String, Integer> cases = new LinkedHashMap<>();
        for (Exported exported : fixes) {
            long n = exported.page().cases().stream()
                    .filter(c -> canBeCalled(exported, c))
                    .count();
            if (n > 0) {
                cases.put(exported.fix().name(), (int) n);
            }
        }
        return cases;
    }

    /// A missing value cannot stand where the value must be known when code is written, and a list of the case's
    /// own not at all.
    static boolean canBeCalled(Exported exported, FixPage.Case example) {
        return exported.fix().parameters().stream().filter(Parameter::fixed).noneMatch(p -> {
            Expr.Literal given = example.arguments().get(p.name().toLowerCase(Locale.ROOT));
            return given != null && (given.value() == null || p.type().isFixed());
        });
    }

    private static String one(Exported exported, FixPage.Case example) {
        List<Parameter> parameters = exported.fix().parameters();
        Expr.Literal first =
                example.arguments().get(parameters.getFirst().name().toLowerCase(Locale.ROOT));
        String others = parameters.stream()
                .skip(1)
                .filter(p -> example.arguments().containsKey(p.name().toLowerCase(Locale.ROOT)))
                .map(p -> "\"" + PandasLanguage.argumentName(p) + "\": "
                        + PandasLanguage.literal(
                                example.arguments().get(p.name().toLowerCase(Locale.ROOT))))
                .collect(Collectors.joining(", ", "{", "}"));
        return "        (" + (first == null ? "None" : PandasLanguage.literal(first)) + ", " + others + ", "
                + PandasLanguage.literal(example.expected()) + "),\n";
    }
}
