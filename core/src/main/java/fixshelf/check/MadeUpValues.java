package fixshelf.check;

import fixshelf.language.tree.Expr;
import fixshelf.type.Literals;
import fixshelf.type.Type;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneOffset;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Random;
import java.util.stream.IntStream;
import java.util.stream.LongStream;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/// Values that find faults: the edges of each type, then made-up ones. The same seed makes the same values.
public final class MadeUpValues {
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
            "9007199254740993",
            "9223372036854775807",
            "9223372036854775808",
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
            "2026-02-07 23:59:59",
            "2026-02-07 24:00:00",
            "\u200B");

    /// Also around what 32 bits hold, what a binary fraction of 64 bits holds exactly, and where a third with four
    /// places has more than 15 digits.
    private static final List<Long> WHOLE_EDGES = List.of(
            0L,
            1L,
            -1L,
            9L,
            10L,
            100L,
            2_147_483_647L,
            2_147_483_648L,
            -2_147_483_649L,
            400_000_000_001L,
            9_007_199_254_740_992L,
            9_007_199_254_740_993L,
            -9_007_199_254_740_993L,
            Long.MAX_VALUE,
            Long.MIN_VALUE);

    /// Also where halves, the digits that a binary fraction holds, and the sizes of operands end.
    private static final List<Double> NUMBER_EDGES = List.of(
            0.0,
            1.0,
            -1.0,
            0.1,
            0.5,
            -0.5,
            1.5,
            2.5,
            -2.5,
            2.675,
            1.005,
            -1.005,
            5.015,
            0.49999999999999994,
            4.9999999999999994e-4,
            123456.789,
            1e15,
            999999999999999.9,
            9007199254740991.0,
            9007199254740992.0,
            1e-7,
            1e22,
            1e23,
            1e150,
            1.0000000000000002e150,
            1e-150,
            9.999999999999999e-151,
            -1e200,
            1e300,
            1e-300);

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

    /// Microseconds of a second; in years far off R keeps none.
    private static final int[] MICROS = {500_000, 250_000, 1, 999_999, 123_456, 100_000, 70};

    private static final LocalDate START = LocalDate.of(2000, 1, 1);
    private static final long FIRST_SECOND =
            LocalDate.of(1, 1, 1).atStartOfDay().toEpochSecond(ZoneOffset.UTC);
    private static final long LAST_SECOND =
            LocalDate.of(9999, 12, 31).atTime(23, 59, 59).toEpochSecond(ZoneOffset.UTC);

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
                WHOLE_EDGES.forEach(edge -> values.add(Expr.Literal.integer(edge)));
                while (values.size() < count) {
                    values.add(Expr.Literal.integer(random.nextLong() >> random.nextInt(64)));
                }
            }
            case Type.Num _ -> {
                NUMBER_EDGES.forEach(edge -> values.add(number(edge)));
                while (values.size() < count) {
                    values.add(number(
                            random.nextInt(3) == 0 ? anyNumber() : (random.nextLong() >> random.nextInt(64)) / 1e3));
                }
            }
            case Type.Decimal(int precision, int scale) -> {
                long most = (long) Math.pow(10, Math.min(precision, 18)) - 1;
                LongStream.of(0, 5, -5, 15, most, -most)
                        .filter(n -> Math.abs(n) <= most)
                        .forEach(n -> values.add(new Expr.Literal(BigDecimal.valueOf(n, scale), type)));
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
            case Type.Timestamp _ -> {
                for (String edge : DAYS) {
                    values.add(time(LocalDate.parse(edge).atTime(0, 0)));
                    values.add(time(LocalDate.parse(edge).atTime(23, 59, 59)));
                }
                for (int micros : MICROS) {
                    values.add(time(LocalDateTime.of(1969, 12, 31, 23, 59, 59, 1000 * micros)));
                }
                while (values.size() < count) {
                    long second = random.nextInt(3) == 0
                            ? FIRST_SECOND + Math.floorMod(random.nextLong(), LAST_SECOND - FIRST_SECOND)
                            : random.nextInt();
                    boolean near = Math.abs(second) < 1L << 32;
                    int micros = near && random.nextInt(3) == 0 ? MICROS[random.nextInt(MICROS.length)] : 0;
                    values.add(time(LocalDateTime.ofEpochSecond(second, 1000 * micros, ZoneOffset.UTC)));
                }
            }
            case Type.ListOf(Type element) -> {
                List<Expr.Literal> elements = of(element, 5);
                for (int size = 1; size <= 3; size++) {
                    values.add(new Expr.Literal(plain(elements.subList(1, 1 + size)), type));
                }
            }
            case Type.Mapping(Type from, Type to) -> {
                List<Expr.Literal> keys = of(from, 5);
                List<Expr.Literal> targets = of(to, 5);
                for (int size = 1; size <= 2; size++) {
                    Map<Object, @Nullable Object> pairs = new LinkedHashMap<>();
                    for (int i = 1; i <= size; i++) {
                        pairs.put(
                                Objects.requireNonNull(keys.get(i).value()),
                                targets.get(i).value());
                    }
                    values.add(new Expr.Literal(pairs, type));
                }
            }
            case Type.Bool _ -> {
                values.add(Expr.Literal.truth(true));
                values.add(Expr.Literal.truth(false));
            }
        }
        return values;
    }

    /// Some edges of a type as constants, from the place `first` on.
    public static List<String> edges(Type type, int first, int count) {
        List<Expr.Literal> all = new MadeUpValues(first, List.of()).of(type, 0);
        return IntStream.range(0, Math.min(count, all.size()))
                .mapToObj(i -> Literals.print(all.get((first + i) % all.size()).value()))
                .toList();
    }

    /// The simplest values of a type as constants, the simplest first.
    public static List<String> simplest(Type type) {
        return switch (type) {
            case Type.Text _, Type.Unknown _ -> List.of("'a'", "'b'", "NULL");
            case Type.Int _, Type.Num _, Type.Decimal _ -> List.of("0", "1", "NULL");
            case Type.Bool _ -> List.of("true", "false", "NULL");
            case Type.Date _ -> List.of("DATE '2026-01-01'", "NULL");
            case Type.Timestamp _ -> List.of("TIMESTAMP '2026-01-01 00:00:00'", "NULL");
            case Type.ListOf _, Type.Mapping _ -> List.of("NULL");
        };
    }

    private static Expr.Literal number(double value) {
        return new Expr.Literal(value + 0.0, Type.NUMBER);
    }

    /// A number of any size that a text may say.
    private double anyNumber() {
        double size = (1 + random.nextDouble()) * Math.pow(10, random.nextInt(598) - 299);
        return random.nextBoolean() ? size : -size;
    }

    private static Expr.Literal time(LocalDateTime time) {
        return new Expr.Literal(time, Type.TIMESTAMP);
    }

    private static List<@Nullable Object> plain(List<Expr.Literal> values) {
        List<@Nullable Object> plain = new ArrayList<>();
        values.forEach(v -> plain.add(v.value()));
        return plain;
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

    /// Values that are smaller than this one and might still show the fault: shorter texts, numbers nearer to zero,
    /// days and times nearer to the start of 2000.
    static List<Expr.Literal> smaller(Expr.Literal value) {
        List<?> smaller =
                switch (value.value()) {
                    case String text -> shorter(text);
                    case Long whole -> nearer(whole, 0);
                    case BigDecimal number -> {
                        List<BigDecimal> nearer = new ArrayList<>();
                        nearer(number.unscaledValue().longValue(), 0)
                                .forEach(n -> nearer.add(BigDecimal.valueOf(n, number.scale())));
                        yield number.unscaledValue().bitLength() < Long.SIZE ? nearer : List.of();
                    }
                    case Double number -> simpler(number);
                    case LocalDate day ->
                        nearer(day.toEpochDay(), START.toEpochDay()).stream()
                                .map(LocalDate::ofEpochDay)
                                .toList();
                    case LocalDateTime time ->
                        nearer(
                                        time.toEpochSecond(ZoneOffset.UTC),
                                        START.atStartOfDay().toEpochSecond(ZoneOffset.UTC))
                                .stream()
                                .flatMap(s -> Stream.of(0, time.getNano())
                                        .map(n -> LocalDateTime.ofEpochSecond(s, n, ZoneOffset.UTC)))
                                .distinct()
                                .toList();
                    case null, default -> List.of();
                };
        return smaller.stream()
                .<Expr.Literal>map(v -> new Expr.Literal(v, value.type()))
                .toList();
    }

    /// Whole numbers for a broken one, and nearer ones for a whole one.
    private static List<Double> simpler(double number) {
        if (Math.abs(number) >= Type.Num.MOST_WHOLE) {
            return List.of(0.0, Math.signum(number) * 1e15);
        }
        return number == Math.rint(number)
                ? nearer((long) number, 0).stream().map(Long::doubleValue).toList()
                : List.of(0.0, Math.rint(number));
    }

    /// The goal, one beside it, parts of the way to it, and one step, the nearest first; each strictly nearer than the
    /// value, so that going on comes to an end.
    private static List<Long> nearer(long value, long goal) {
        long way = value - goal;
        return Stream.of(
                        0L,
                        (long) Long.signum(way),
                        way >> 48,
                        way >> 32,
                        way >> 16,
                        way >> 8,
                        way >> 4,
                        way / 4,
                        way / 2,
                        way - Long.signum(way))
                .filter(part -> Long.compareUnsigned(Math.abs(part), Math.abs(way)) < 0)
                .distinct()
                .sorted(Comparator.comparingLong(Math::abs))
                .map(part -> goal + part)
                .toList();
    }

    private static List<String> shorter(String text) {
        int[] points = text.codePoints().toArray();
        List<String> smaller = new ArrayList<>();
        for (int size = points.length; size >= 1; size /= 2) {
            for (int from = 0; from + size <= points.length; from += size) {
                String rest =
                        new String(points, 0, from) + new String(points, from + size, points.length - from - size);
                smaller.add(rest);
            }
        }
        for (int i = 0; i < points.length; i++) {
            if (points[i] != 'a' && points[i] != ' ') {
                smaller.add(new String(points, 0, i) + "a" + new String(points, i + 1, points.length - i - 1));
            }
        }
        return smaller;
    }
}
