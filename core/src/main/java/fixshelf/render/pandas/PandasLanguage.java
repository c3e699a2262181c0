package fixshelf.render.pandas;

import fixshelf.language.emulation.Folding;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.Parameter;
import fixshelf.problem.Outcome;
import fixshelf.render.Comments;
import fixshelf.render.JobCode;
import fixshelf.render.frame.FrameLanguage;
import fixshelf.type.Type;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.stream.Stream;

/// Python 3.9 and later with pandas 1.5 and later. Texts are columns of dtype `string`, so that missing stays
/// missing.
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
        HELPERS.forEach((name, text) -> {
            boolean needed = code.contains(name)
                    || name.equals("EXACT") && (code.contains("digits(") || code.contains("narrowed("));
            helpers.append(needed ? "\n\n" + text : "");
        });
        helpers.append(PandasTables.needed(code));
        String all = helpers + code;
        StringBuilder out = new StringBuilder();
        out.append(all.contains("re.fullmatch(") ? "import re\n" : "");
        out.append(all.contains("unicodedata.") ? "import unicodedata\n" : "");
        List<String> dates = Stream.of("date", "datetime", "timedelta")
                .filter(n -> calls(all, n))
                .toList();
        out.append(dates.isEmpty() ? "" : "from datetime import " + String.join(", ", dates) + "\n");
        List<String> numbers = Stream.of("Context(", "ROUND_HALF_UP", "Decimal(", "(Decimal")
                .filter(all::contains)
                .map(n -> n.replace("(", ""))
                .distinct()
                .sorted(String.CASE_INSENSITIVE_ORDER)
                .toList();
        out.append(numbers.isEmpty() ? "" : "from decimal import " + String.join(", ", numbers) + "\n");
        out.append(out.isEmpty() ? "" : "\n");
        return out.append("import pandas as pd\n").append(helpers).toString();
    }

    /// Whether a name that begins no other stands before a point or a parenthesis.
    private static boolean calls(String code, String name) {
        for (int at = code.indexOf(name); at >= 0; at = code.indexOf(name, at + 1)) {
            boolean begins = at == 0 || !Character.isJavaIdentifierPart(code.charAt(at - 1));
            int end = at + name.length();
            if (begins && end < code.length() && (code.charAt(end) == '.' || code.charAt(end) == '(')) {
                return true;
            }
        }
        return false;
    }

    /// Functions that Python lacks, by the words that tell that a piece of code needs them.
    private static final Map<String, String> HELPERS = new TreeMap<>(Map.ofEntries(
            Map.entry("iso_date", """
            def iso_date(text):
                \"""The day that a text writes as yyyy-MM-dd, or missing.\"""
                try:
                    return date.fromisoformat(text) if re.fullmatch(r"[0-9]{4}-[0-9]{2}-[0-9]{2}", text) else pd.NA
                except ValueError:
                    return pd.NA
            """),
            Map.entry(" later(", """
            def later(day, days):
                \"""A day so many days later, or missing outside the calendar.\"""
                try:
                    return day + timedelta(days=int(days))
                except OverflowError:
                    return pd.NA
            """),
            Map.entry("whole(", """
            def whole(number):
                \"""A whole number, or missing beyond 64 bits.\"""
                return number if -(2**63) <= number < 2**63 else pd.NA
            """),
            Map.entry("months_later(", """
            def months_later(day, months):
                \"""The same day so many months later, or the last of the month; missing outside the calendar.\"""
                count = day.year * 12 + day.month - 1 + int(months)
                if not 12 <= count < 120_000:
                    return pd.NA
                first = date(count // 12, count % 12 + 1, 1)
                last = (date(count // 12 + count % 12 // 11, (count + 1) % 12 + 1, 1) if count < 119_999 else None)
                days = 31 if last is None else (last - first).days
                return first.replace(day=min(day.day, days))
            """),
            Map.entry("iso_time", """
            def iso_time(text):
                \"""The time that a text writes as yyyy-MM-dd HH:mm:ss, perhaps with a fraction, or missing.\"""
                try:
                    shape = r"[0-9]{4}-[0-9]{2}-[0-9]{2} ([01][0-9]|2[0-3])(:[0-5][0-9]){2}([.][0-9]{1,6})?"
                    if not re.fullmatch(shape, text):
                        return pd.NA
                    return datetime.fromisoformat(text[:19]).replace(microsecond=int(text[20:].ljust(6, "0")))
                except ValueError:
                    return pd.NA
            """),
            Map.entry("time_text", """
            def time_text(time):
                \"""A time as yyyy-MM-dd HH:mm:ss, with the digits of its fraction that are not needless zeros.\"""
                text = time.isoformat(" ")
                return text.rstrip("0") if time.microsecond else text
            """),
            Map.entry("seconds_later(", """
            def seconds_later(time, seconds):
                \"""A time so many seconds later, or missing outside the calendar.\"""
                try:
                    # As a plain time: those of pandas end in the year 2262.
                    return datetime.combine(time.date(), time.time()) + timedelta(seconds=int(seconds))
                except OverflowError:
                    return pd.NA
            """),
            Map.entry("micros_later(", """
            def micros_later(time, micros):
                \"""A time so many microseconds later, or missing outside the calendar.\"""
                try:
                    return datetime.combine(time.date(), time.time()) + timedelta(microseconds=int(micros))
                except OverflowError:
                    return pd.NA
            """),
            Map.entry("seconds_from(", """
            def seconds_from(time, later):
                \"""The whole seconds from a time to another, as plain times: those of pandas end in the year 2262.\"""
                begin, end = (datetime.combine(t.date(), t.time()) for t in (time, later))
                second = timedelta(seconds=1)
                return (end - begin) // second if begin <= end else -((begin - end) // second)
            """),
            Map.entry("all_capitals", """
            def all_capitals(text):
                \"""Each letter as its capital, where that is one letter too.\"""
                return "".join(u if len(u := c.upper()) == 1 else t if len(t := c.title()) == 1 else c for c in text)
            """),
            Map.entry("join_known(", """
            def join_known(separator, texts):
                \"""The texts that are not missing with the separator between them; missing when all are.\"""
                known = [text for text in texts if not pd.isna(text)]
                return separator.join(known) if known else pd.NA
            """),
            Map.entry("exact_number(", """
            def exact_number(text, digits, places):
                \"""The number that a text says, with so many places, half away from zero; missing where it does not fit.\"""
                shape = r"[\\t-\\r ]*[+-]?([0-9]+([.][0-9]*)?|[.][0-9]+)[\\t-\\r ]*"
                if len(text) > 100 or not re.fullmatch(shape, text):
                    return pd.NA
                number, most = Decimal(text.strip()), 10 ** (digits - places)
                if abs(number) >= most:
                    return pd.NA
                rounded = number.quantize(Decimal(1).scaleb(-places), ROUND_HALF_UP)
                return rounded if abs(rounded) < most else pd.NA
            """),
            Map.entry("initcap", """
            def initcap(text):
                \"""Each run of letters and digits with a capital first and small letters after it.\"""
                out, inside = [], False
                for c in text:
                    word = c.isalpha() or c.isdecimal()
                    if not word:
                        out.append(c)
                    elif inside:
                        out.append(c.lower() if c != "\\u0130" else "i")
                    else:
                        out.append(u if len(u := c.upper()) == 1 else t if len(t := c.title()) == 1 else c)
                    inside = word or inside and unicodedata.category(c).startswith("M")
                return "".join(out)
            """),
            Map.entry("units(", """
            def units(number, divisor, places):
                \"""A quotient with so many places, half away from zero; missing when it has more than 18 digits.\"""
                top, bottom = Decimal(number).as_integer_ratio(), Decimal(divisor).as_integer_ratio()
                over, under = abs(top[0] * bottom[1] * 10**places), abs(top[1] * bottom[0])
                count = (2 * over + under) // (2 * under)
                negative = (number < 0) != (divisor < 0)
                return Decimal(-count if negative else count).scaleb(-places) if count < 10**18 else pd.NA
            """),
            Map.entry("narrowed(", """
            def narrowed(number, digits, places):
                \"""The same number with so many digits, so many of them after the point; missing where it has more.\"""
                exact = EXACT.quantize(Decimal(number), Decimal(1).scaleb(-places))
                return exact if exact == number and abs(exact) < 10 ** (digits - places) else pd.NA
            """),
            Map.entry("digits(", """
            def digits(number, places):
                \"""The digits of a number with so many places, without a sign before zero.\"""
                return f"{EXACT.plus(number):.{places}f}"
            """),
            Map.entry("EXACT", """
            EXACT = Context(prec=100)
            """),
            Map.entry("float_number", """
            def float_number(text):
                \"""The floating-point number that a text says; missing beyond 1e300, 0 closer to it than 1e-300.\"""
                shape = r"[\\t-\\r ]*[+-]?([0-9]+([.][0-9]*)?|[.][0-9]+)([eE][+-]?[0-9]{1,3})?[\\t-\\r ]*"
                if len(text) > 100 or not re.fullmatch(shape, text):
                    return pd.NA
                size = abs(number := float(text))
                return 0.0 if size < 1e-300 else number if size <= 1e300 else pd.NA
            """),
            Map.entry("nearest(", """
            def nearest(number, places):
                \"""The shortest digits of a number, with so many places, half away from zero; missing from 1e15 on.\"""
                if abs(number) >= 10 ** min(15, 18 - places):
                    return pd.NA
                rounded = Decimal(repr(float(number))).quantize(Decimal(1).scaleb(-places), ROUND_HALF_UP)
                return rounded if abs(rounded) < 10 ** (18 - places) else pd.NA
            """)));

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
    protected Outcome<String> jobFunction(JobCode job, String name, Function<Expr, Expr> inJob) {
        return PandasJobs.write(job, PandasWriter.safe(name), inJob);
    }

    /// How a job is called in code.
    public static String functionName(JobCode job) {
        return PandasWriter.safe(jobName(job));
    }

    @Override
    protected String written(Expr expr) {
        PandasWriter writer = PandasWriter.ofFrame();
        return writer.series(expr).text();
    }

    @Override
    protected String before(String code) {
        return imports(code);
    }

    @Override
    protected String between() {
        return "\n\n";
    }

    @Override
    protected String function(Definition asked, String about) {
        Definition fix = Folding.of(asked);
        PandasWriter writer = PandasWriter.ofFunction(fix);
        List<String> signature = new ArrayList<>();
        List<String> lines = new ArrayList<>();
        String words = (about + " " + PandasWriter.TAKEN.remark(title(), fix.name())).strip();
        if (!words.isEmpty()) {
            lines.add(Comments.docstring(words));
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
