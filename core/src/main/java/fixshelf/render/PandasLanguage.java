package fixshelf.render;

import fixshelf.language.Definition;
import fixshelf.language.Expr;
import fixshelf.language.Parameter;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;

/// Python 3.9 and later with pandas 1.5 and later. Texts are columns of dtype `string`, so that missing stays missing.
public final class PandasLanguage extends FrameLanguage {
    private static final Set<String> KEYWORDS = Set.of(
            "def", "return", "import", "from", "as", "if", "else", "lambda", "none", "true", "false", "not", "and",
            "or", "in", "is", "for", "raise");

    @Override
    public String id() {
        return "pandas";
    }

    @Override
    public String title() {
        return "Python, pandas";
    }

    @Override
    public Set<String> keywords() {
        return KEYWORDS;
    }

    /// The imports that a piece of code needs.
    public static String imports(String code) {
        StringBuilder helpers = new StringBuilder();
        HELPERS.forEach((name, text) -> helpers.append(code.contains(name) ? "\n\n" + text : ""));
        String all = helpers + code;
        StringBuilder out = new StringBuilder();
        out.append(all.contains("re.fullmatch(") ? "import re\n" : "");
        out.append(
                all.contains("date(") || all.contains("date.") || all.contains("timedelta(")
                        ? "from datetime import date, timedelta\n"
                        : "");
        out.append(all.contains("Decimal(") ? "from decimal import ROUND_HALF_UP, Decimal\n" : "");
        out.append(out.isEmpty() ? "" : "\n");
        return out.append("import pandas as pd\n").append(helpers).toString();
    }

    /// Functions that Python lacks, by the words that tell that a piece of code needs them.
    private static final Map<String, String> HELPERS = Map.of("iso_date", """
            def iso_date(text):
                \"""The day that a text writes as yyyy-MM-dd, or missing.\"""
                try:
                    return date.fromisoformat(text) if re.fullmatch(r"[0-9]{4}-[0-9]{2}-[0-9]{2}", text) else pd.NA
                except ValueError:
                    return pd.NA
            """, "later(", """
            def later(day, days):
                \"""A day so many days later, or missing outside the calendar.\"""
                try:
                    return day + timedelta(days=int(days))
                except OverflowError:
                    return pd.NA
            """, "whole(", """
            def whole(number):
                \"""A whole number, or missing beyond 64 bits.\"""
                return number if -(2**63) <= number < 2**63 else pd.NA
            """);

    /// How a parameter is called in code.
    public static String argumentName(Parameter parameter) {
        return PandasWriter.safe(parameter.name());
    }

    /// How a fix is called in code.
    public static String functionName(Definition fix) {
        return PandasWriter.safe(fix.name());
    }

    /// A value as it is written in code.
    public static String literal(Expr.Literal literal) {
        return PandasWriter.literalText(literal.value());
    }

    /// The type of a column, as it is written in code.
    public static String dtype(Type type) {
        return PandasWriter.dtype(type);
    }

    @Override
    String written(Expr expr) {
        PandasWriter writer = PandasWriter.ofFrame();
        return writer.series(expr).text();
    }

    @Override
    String before(String code) {
        return imports(code);
    }

    @Override
    String between() {
        return "\n\n";
    }

    @Override
    String function(Definition fix, String about) {
        PandasWriter writer = PandasWriter.ofFunction(fix);
        List<String> signature = new ArrayList<>();
        List<String> lines = new ArrayList<>();
        if (!about.isBlank()) {
            lines.add("\"\"\""
                    + about.replace("\\", "\\\\").replace("\"\"\"", "'''").replace("\n", " ") + "\"\"\"");
        }
        for (int i = 0; i < fix.parameters().size(); i++) {
            var parameter = fix.parameters().get(i);
            String name = writer.variable(parameter.name());
            String fallback =
                    parameter.fallback().map(f -> "=" + PandasWriter.scalar(f)).orElse("");
            signature.add(
                    i == 0
                            ? name + ": pd.Series" + (fallback.isEmpty() ? "" : " " + fallback.replace("=", "= "))
                            : name + fallback);
            lines.addAll(prepared(fix, i, name, writer));
        }
        fix.body().assignments().forEach(a -> lines.add(writer.assignment(a.name(), a.value())));
        lines.add("return " + writer.series(fix.body().result()).text());
        return "def " + writer.functionName(fix) + "(" + String.join(", ", signature) + ") -> pd.Series:\n    "
                + String.join("\n    ", lines) + "\n";
    }

    private static List<String> prepared(Definition fix, int index, String name, PandasWriter writer) {
        var parameter = fix.parameters().get(index);
        String dtype = PandasWriter.dtype(parameter.type());
        if (index == 0) {
            return List.of(name + " = " + name + ".astype(" + dtype + ")");
        }
        if (parameter.fixed()) {
            return List.of("if " + name + " is None:", "    raise ValueError(\"" + name + " must be given\")");
        }
        boolean objects = parameter.type() instanceof Type.Decimal;
        return List.of(name + " = pd.Series(" + name + ", index=" + writer.index() + ", dtype="
                + (objects ? "object" : dtype) + ")");
    }
}
