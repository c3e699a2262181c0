package fixshelf.check;

import fixshelf.language.Expr;
import fixshelf.type.Type;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;

/// Values that find faults: the edges of each type, then made-up ones. The same seed makes the same values.
final class MadeUpValues {
    private static final List<String> EDGES = List.of(
            "",
            " ",
            "  ",
            "\t",
            "\n",
            "\r\n",
            "\u00A0",
            "a",
            "A",
            " a ",
            "a  b",
            "é",
            "e\u0301",
            "ß",
            "😀",
            "0",
            "00120",
            "-3",
            "12,345",
            "12.5",
            "1e3",
            "n/a",
            "N/A",
            "-",
            "NULL",
            "'",
            "\"",
            "\\",
            "%",
            "_",
            "a,b",
            ",a,,b,",
            "a;b",
            "9223372036854775807",
            "x".repeat(300),
            "  leading",
            "trailing  ",
            "(7)",
            "5%",
            "#25",
            "2024-02-29",
            "2026-02-30",
            "0000-01-01",
            "07/02/2026",
            "7 Feb 2026",
            "2026-02-07 10:12",
            "\u200B");

    private static final List<String> DAYS = List.of(
            "0001-01-01",
            "0999-12-31",
            "1582-10-04",
            "1582-10-10",
            "1899-12-31",
            "1900-02-28",
            "1900-03-01",
            "1969-12-31",
            "1970-01-01",
            "2000-02-29",
            "2024-02-29",
            "2026-02-07",
            "2038-01-19",
            "9999-12-31");

    private static final String ALPHABET = "  \t\n\u00A0aAbBzZ019.,;:-_+*#%/\\'\"()éßx";

    private final Random random;
    private final List<String> words;

    /// Values made with `seed`; `words` are texts that stand in the fix itself and are woven in.
    MadeUpValues(long seed, List<String> words) {
        this.random = new Random(seed);
        this.words = words.stream().filter(w -> !w.isEmpty()).toList();
    }

    /// At least all edges of the type, and `count` values in all where the type has that many.
    List<Expr.Literal> of(Type type, int count) {
        List<Expr.Literal> values = new ArrayList<>();
        values.add(new Expr.Literal(null, type));
        switch (type) {
            case Type.Text _, Type.Unknown _ -> {
                EDGES.forEach(e -> values.add(Expr.Literal.text(e)));
                words.forEach(w -> values.add(Expr.Literal.text(w + w)));
                while (values.size() < count) {
                    values.add(Expr.Literal.text(text()));
                }
            }
            case Type.Int _ -> {
                for (long edge : new long[] {0, 1, -1, 9, 10, 100, Long.MAX_VALUE, Long.MIN_VALUE}) {
                    values.add(Expr.Literal.integer(edge));
                }
                while (values.size() < count) {
                    values.add(Expr.Literal.integer(random.nextLong() >> random.nextInt(64)));
                }
            }
            case Type.Decimal(int precision, int scale) -> {
                while (values.size() < count) {
                    long digits = random.nextLong() >> (64 - Math.min(60, 3 * precision));
                    values.add(new Expr.Literal(
                            BigDecimal.valueOf(digits % (long) Math.pow(10, Math.min(precision, 17)), scale), type));
                }
            }
            case Type.Date _ -> {
                for (String edge : DAYS) {
                    values.add(new Expr.Literal(LocalDate.parse(edge), type));
                }
                long span = LocalDate.of(9999, 12, 31).toEpochDay()
                        - LocalDate.of(1, 1, 1).toEpochDay();
                while (values.size() < count) {
                    long day = random.nextInt(3) == 0
                            ? LocalDate.of(1, 1, 1).toEpochDay() + Math.floorMod(random.nextLong(), span)
                            : LocalDate.of(1990, 1, 1).toEpochDay() + random.nextInt(20_000);
                    values.add(new Expr.Literal(LocalDate.ofEpochDay(day), type));
                }
            }
            case Type.Bool _ -> {
                values.add(Expr.Literal.truth(true));
                values.add(Expr.Literal.truth(false));
            }
        }
        return values;
    }

    private String text() {
        StringBuilder out = new StringBuilder();
        int parts = random.nextInt(9);
        for (int i = 0; i < parts; i++) {
            boolean word = !words.isEmpty() && random.nextInt(4) == 0;
            if (word) {
                out.append(words.get(random.nextInt(words.size())));
            } else {
                out.append(ALPHABET.charAt(random.nextInt(ALPHABET.length())));
            }
        }
        return out.toString();
    }

    /// Texts that are smaller than this one and might still show the fault.
    static List<Expr.Literal> smaller(Expr.Literal value) {
        if (!(value.value() instanceof String text) || text.isEmpty()) {
            return List.of();
        }
        int[] points = text.codePoints().toArray();
        List<Expr.Literal> smaller = new ArrayList<>();
        for (int size = points.length; size >= 1; size /= 2) {
            for (int from = 0; from + size <= points.length; from += size) {
                String rest =
                        new String(points, 0, from) + new String(points, from + size, points.length - from - size);
                smaller.add(Expr.Literal.text(rest));
            }
        }
        for (int i = 0; i < points.length; i++) {
            if (points[i] != 'a' && points[i] != ' ') {
                smaller.add(Expr.Literal.text(
                        new String(points, 0, i) + "a" + new String(points, i + 1, points.length - i - 1)));
            }
        }
        return smaller;
    }
}
