package fixshelf.check;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.check.Meaning.Row;
import fixshelf.engine.Answer;
import fixshelf.engine.Answer.Evaluation;
import fixshelf.engine.FixEngines;
import fixshelf.language.catalogue.Functions;
import fixshelf.language.tree.Expr;
import fixshelf.language.tree.FunctionDef;
import fixshelf.type.Literals;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.text.Normalizer;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.time.temporal.ChronoUnit;
import java.time.temporal.IsoFields;
import java.time.temporal.TemporalAdjusters;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Function;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/// What `docs/semantics.md` says of every function, once more in plain Java, against the engine that all others are
/// compared with: parity shows that languages agree, this shows that what they agree on is what was written down.
class CatalogueModelTest {
    private static final int VALUES = 500;

    /// An expression over the parameters of [Expressions], and what it means.
    record Model(String expression, boolean strict, Function<Row, @Nullable Object> meaning) {
        @Override
        public String toString() {
            return expression;
        }
    }

    /// Null where any parameter is, without being asked.
    private static Model strict(String expression, Function<Row, @Nullable Object> meaning) {
        return new Model(expression, true, meaning);
    }

    /// Says itself what nulls give.
    private static Model open(String expression, Function<Row, @Nullable Object> meaning) {
        return new Model(expression, false, meaning);
    }

    static Stream<Model> models() {
        return Stream.of(texts(), patterns(), conditions(), numbers(), days(), times(), lists())
                .flatMap(List::stream);
    }

    private static List<Model> texts() {
        return List.of(
                strict("trim(s)", r -> Meaning.trimmed(r.s(), " ", true, true)),
                strict("trim(s, ' x0\"')", r -> Meaning.trimmed(r.s(), " x0\"", true, true)),
                strict("trim(s, '')", Row::s),
                strict("ltrim(s, 'a]^-\\')", r -> Meaning.trimmed(r.s(), "a]^-\\", true, false)),
                strict("rtrim(s, '. ')", r -> Meaning.trimmed(r.s(), ". ", false, true)),
                strict("remove_prefix(s, ' ')", r -> r.s().startsWith(" ") ? r.s().substring(1) : r.s()),
                strict(
                        "remove_suffix(s, 'a')",
                        r -> r.s().endsWith("a") ? r.s().substring(0, r.s().length() - 1) : r.s()),
                strict("replace(s, ' ', '')", r -> r.s().replace(" ", "")),
                strict("replace(s, 'aa', '\\1$')", r -> r.s().replace("aa", "\\1$")),
                strict("replace(s, '', 'x')", Row::s),
                strict("upper(s)", r -> Meaning.mapped(r.s(), Character::toUpperCase)),
                strict("lower(s)", r -> Meaning.mapped(r.s(), Character::toLowerCase)),
                strict("length(s)", r -> Meaning.length(r.s())),
                strict("substring(s, 2, 3)", r -> Meaning.between(r.s(), 2, 5)),
                strict("substring(s, -1)", r -> Meaning.between(r.s(), -1, Long.MAX_VALUE)),
                strict("substring(s, n)", r -> Meaning.between(r.s(), Meaning.clamped(r.n()), Long.MAX_VALUE)),
                strict("substring(s, n, m)", r -> {
                    long from = Meaning.clamped(r.n());
                    return Meaning.between(r.s(), from, from + Math.max(0, Meaning.clamped(r.m())));
                }),
                strict("left(s, n)", r -> Meaning.between(r.s(), 1, 1 + Math.max(0, Meaning.clamped(r.n())))),
                strict("right(s, 2)", r -> Meaning.between(r.s(), Meaning.length(r.s()) - 1, Long.MAX_VALUE)),
                strict("position(s, 'a')", r -> Meaning.position(r.s(), "a")),
                strict("position(s, '')", _ -> 1L),
                strict("starts_with(s, ' ')", r -> r.s().startsWith(" ")),
                strict("ends_with(s, 'a')", r -> r.s().endsWith("a")),
                strict("contains(s, '%')", r -> r.s().contains("%")),
                strict("repeat(s, 2)", r -> r.s() + r.s()),
                strict("repeat(s, -1)", _ -> ""),
                strict("s || t", r -> r.s() + r.t()),
                strict("concat(s, '-', t)", r -> r.s() + "-" + r.t()),
                // A choice between nothing and nothing, where another branch says that it is no text.
                open("CASE WHEN length(s) > 2 THEN CASE WHEN s < t THEN NULL END ELSE length(s) = 1 END", r -> {
                    Object s = r.maybe("s");
                    int length = s == null
                            ? 3
                            : s.toString().codePointCount(0, s.toString().length());
                    return length > 2 ? null : length == 1;
                }),
                open("concat_ws('-', s, t)", r -> Meaning.joined("-", r.maybe("s"), r.maybe("t"))),
                strict("text_between(s, 'a', ' ')", r -> Meaning.inside(r.s(), "a", " ")),
                strict("reverse(s)", r -> new StringBuilder(r.s()).reverse().toString()),
                strict("initcap(s || t)", r -> Meaning.capitals(r.s() + r.t())),
                strict("lpad(s, 8, 'xyz')", r -> Meaning.filling(r.s(), 8, "xyz") + r.s()),
                strict("rpad(s, 5)", r -> r.s() + Meaning.filling(r.s(), 5, " ")),
                strict("translate(s, 'ab.a', 'ba')", r -> r.s().replace("a", "\u0001")
                        .replace("b", "a")
                        .replace("\u0001", "b")
                        .replace(".", "")),
                strict("strip_accents(s || 'éǣ')", r -> Meaning.withoutAccents(r.s() + "éǣ")),
                strict("normalize(s)", r -> Normalizer.normalize(r.s(), Normalizer.Form.NFC)),
                strict("replace_any_case(s, 'a', '-')", r -> r.s().replace('a', '-')
                        .replace('A', '-')));
    }

    private static final Set<Byte> SYMBOLS = Set.of(
            Character.MATH_SYMBOL,
            Character.CURRENCY_SYMBOL,
            Character.MODIFIER_SYMBOL,
            Character.OTHER_SYMBOL,
            Character.DASH_PUNCTUATION);

    private interface Wanted {
        boolean in(int before, int character, int after);
    }

    /// Every character that is wanted where it stands becomes another text; -1 is beyond an end.
    private static String replaced(String text, Wanted wanted, String other) {
        int[] all = text.codePoints().toArray();
        StringBuilder out = new StringBuilder();
        for (int i = 0; i < all.length; i++) {
            boolean hit = wanted.in(i == 0 ? -1 : all[i - 1], all[i], i + 1 < all.length ? all[i + 1] : -1);
            out.append(hit ? other : Character.toString(all[i]));
        }
        return out.toString();
    }

    private static boolean isWord(int c) {
        return c >= 0 && c < 128 && (Character.isLetterOrDigit(c) || c == '_');
    }

    private static List<Model> patterns() {
        return List.of(
                strict("regexp_replace(s, ' +', ' ')", r -> r.s().replaceAll(" +", " ")),
                strict("regexp_replace(s, '[^A-Za-z0-9]', '_')", r -> r.s().replaceAll("[^A-Za-z0-9]", "_")),
                strict("regexp_replace(s, '([a-z])([A-Z0-9])', '\\2\\1')", r -> r.s().replaceAll(
                                "([a-z])([A-Z0-9])", "$2$1")),
                strict("regexp_replace(s, '^ +| +$', '')", r -> Meaning.trimmed(r.s(), " ", true, true)),
                strict("regexp_replace(s, '(?i)b', '\\\\')", r -> r.s().replace('b', '\\')
                        .replace('B', '\\')),
                strict("regexp_replace(s, '.', 'x')", r -> r.s().replaceAll("[^\\n]", "x")),
                strict("regexp_like(s, '^[0-9]+$')", r -> r.s().matches("[0-9]+")),
                strict("regexp_like(s, '\\p{L}')", r -> r.s().codePoints().anyMatch(Character::isLetter)),
                strict(
                        "regexp_replace(s || t, '\\ba', '<')",
                        r -> replaced(r.s() + r.t(), (before, c, _) -> c == 'a' && !isWord(before), "<")),
                strict(
                        "regexp_replace(s || t, '[0-9a-z]\\b', '>')",
                        r -> replaced(
                                r.s() + r.t(),
                                (_, c, after) -> isWord(c) && c != '_' && c > 'Z' | c < 'A' && !isWord(after),
                                ">")),
                strict(
                        "regexp_replace(s || t, '\\B[^ ]\\B', '.')",
                        r -> replaced(
                                r.s() + r.t(),
                                (before, c, after) ->
                                        c != ' ' && isWord(before) == isWord(c) && isWord(c) == isWord(after),
                                ".")),
                strict("regexp_like(s, '[\\p{S}\\p{Pd}]')", r -> r.s().codePoints()
                        .mapToObj(c -> (byte) Character.getType(c))
                        .anyMatch(SYMBOLS::contains)),
                strict("regexp_extract(s, '[0-9]+')", r -> Meaning.found(r.s(), "[0-9]+", 0)),
                strict(
                        "regexp_extract(s, '([a-z]+) *([0-9]*)', 2)",
                        r -> Meaning.found(r.s(), "([a-z]+) *([0-9]*)", 2)));
    }

    private static List<Model> conditions() {
        return List.of(
                open("coalesce(s, t)", r -> r.maybe("s") == null ? r.maybe("t") : r.maybe("s")),
                open("nullif(s, t)", r -> Objects.equals(r.maybe("s"), r.maybe("t")) ? null : r.maybe("s")),
                open("s IS NULL", r -> r.maybe("s") == null),
                strict("s = t", r -> r.s().equals(r.t())),
                strict("s <> t", r -> !r.s().equals(r.t())),
                strict("s < t", r -> Meaning.compared(r.s(), r.t()) < 0),
                strict("s <= t", r -> Meaning.compared(r.s(), r.t()) <= 0),
                strict("s > t", r -> Meaning.compared(r.s(), r.t()) > 0),
                strict("s >= t", r -> Meaning.compared(r.s(), r.t()) >= 0),
                open("s IS DISTINCT FROM t", r -> !Objects.equals(r.maybe("s"), r.maybe("t"))),
                strict("s IN ('a', '', NULL)", r -> Set.of("a", "").contains(r.s())),
                strict(
                        "s LIKE '%a_'",
                        r -> Pattern.compile("a.$", Pattern.DOTALL)
                                .matcher(r.s() + "")
                                .results()
                                .anyMatch(m -> m.end() == r.s().length())),
                strict("s LIKE '%!%%' ESCAPE '!'", r -> r.s().contains("%")),
                open("n > 0 AND m > 0", r -> Meaning.and(r.positive("n"), r.positive("m"))),
                open(
                        "n > 0 OR m > 0",
                        r -> Meaning.not(Meaning.and(Meaning.not(r.positive("n")), Meaning.not(r.positive("m"))))),
                open("NOT (n > 0)", r -> Meaning.not(r.positive("n"))),
                open(
                        "CASE WHEN n > 0 THEN s WHEN m > 0 THEN t END",
                        r -> Boolean.TRUE.equals(r.positive("n"))
                                ? r.maybe("s")
                                : Boolean.TRUE.equals(r.positive("m")) ? r.maybe("t") : null));
    }

    private static List<Model> numbers() {
        return List.of(
                strict("to_integer(s)", r -> Meaning.whole(r.s())),
                strict("to_decimal(s, 2)", r -> Meaning.exact(r.s(), 2)),
                strict("to_text(n)", r -> Long.toString(r.n())),
                strict("to_text(d)", r -> r.d().setScale(4).toPlainString()),
                strict("s || chr(233)", r -> r.s() + "é"),
                strict("n + m", r -> Meaning.fitting(() -> Math.addExact(r.n(), r.m()))),
                strict("n - m", r -> Meaning.fitting(() -> Math.subtractExact(r.n(), r.m()))),
                strict("n * m", r -> Meaning.fitting(() -> Math.multiplyExact(r.n(), r.m()))),
                strict("div(n, m)", r -> Meaning.fitting(() -> Math.divideExact(r.n(), r.m()))),
                strict("mod(n, m)", r -> Meaning.fitting(() -> r.n() % r.m())),
                strict(
                        "mod(d, e)",
                        r -> r.e().signum() == 0 || Meaning.quotient(r.d(), r.e(), 0) == null
                                ? null
                                : r.d().remainder(r.e())),
                strict("greatest(n, m, 7)", r -> Math.max(Math.max(r.n(), r.m()), 7)),
                strict("least(s, t)", r -> Meaning.compared(r.s(), r.t()) < 0 ? r.s() : r.t()),
                strict("abs(n)", r -> Meaning.fitting(() -> Math.absExact(r.n()))),
                strict("d + e", r -> r.d().add(r.e())),
                strict("d - e", r -> r.d().subtract(r.e())),
                strict("d * e", r -> r.d().multiply(r.e())),
                strict("abs(d)", r -> r.d().abs()),
                strict("round(d, 1)", r -> Meaning.rounded(r.d(), 1)),
                strict("round(d * e, 2)", r -> Meaning.rounded(r.d().multiply(r.e()), 2)),
                strict("narrow(d, 6, 1)", r -> {
                    BigDecimal bare = r.d().stripTrailingZeros();
                    boolean fits = bare.scale() <= 1 && bare.abs().compareTo(BigDecimal.valueOf(100_000)) < 0;
                    return fits ? bare.setScale(1) : null;
                }),
                strict("floor(d)", r -> r.d().setScale(0, RoundingMode.FLOOR).longValueExact()),
                strict("ceil(d)", r -> r.d().setScale(0, RoundingMode.CEILING).longValueExact()),
                strict("divide(d, e, 3)", r -> Meaning.quotient(r.d(), r.e(), 3)),
                // A divisor with so many digits that it has none to spare.
                strict("divide(d, e * e, 2)", r -> Meaning.quotient(r.d(), r.e().multiply(r.e()), 2)),
                strict(
                        "divide(510375693888.0088, d * 510375693888.0088, 2)",
                        r -> Meaning.quotient(
                                new BigDecimal("510375693888.0088"),
                                r.d().multiply(new BigDecimal("510375693888.0088")),
                                2)),
                strict(
                        "divide(n, m, 2)",
                        r -> Meaning.quotient(BigDecimal.valueOf(r.n()), BigDecimal.valueOf(r.m()), 2)),
                strict(
                        "round_to_part(e, 4, 2)",
                        r -> Meaning.rounded(
                                r.e().multiply(BigDecimal.valueOf(4))
                                        .setScale(0, RoundingMode.HALF_UP)
                                        .divide(BigDecimal.valueOf(4)),
                                2)));
    }

    private static List<Model> days() {
        DateTimeFormatter long1 = DateTimeFormatter.ofPattern("EEEE, d MMMM uuuu", Locale.ENGLISH);
        return List.of(
                strict("to_date(s)", r -> Meaning.day(r.s(), "([0-9]{4})-([0-9]{2})-([0-9]{2})", 1, 2, 3)),
                strict("to_date(format_date(x, 'd/M/yyyy'), 'yyyy-MM-dd', 'd/M/yyyy')", Row::x),
                strict("format_date(x)", r -> r.x().toString()),
                strict("format_date(x, 'EEEE, d MMMM yyyy')", r -> {
                    String text = long1.format(r.x());
                    String year = String.format("%04d", r.x().getYear());
                    return text.replaceFirst("[0-9]+$", year);
                }),
                strict("year(x)", r -> (long) r.x().getYear()),
                strict("month(x)", r -> (long) r.x().getMonthValue()),
                strict("day(x)", r -> (long) r.x().getDayOfMonth()),
                strict("weekday(x)", r -> (long) r.x().getDayOfWeek().getValue()),
                strict("week(x)", r -> r.x().getLong(IsoFields.WEEK_OF_WEEK_BASED_YEAR)),
                strict("add_days(x, n)", r -> Meaning.inCalendar(() -> r.x().plusDays(r.n()))),
                strict("add_months(x, n)", r -> Meaning.inCalendar(() -> r.x().plusMonths(r.n()))),
                strict("last_day(x)", r -> r.x().with(TemporalAdjusters.lastDayOfMonth())),
                strict("days_between(x, y)", r -> ChronoUnit.DAYS.between(r.x(), r.y())),
                strict("working_days(x, y)", r -> Meaning.workingDays(r.x(), r.y(), Set.of(), WEEKEND)),
                strict(
                        "working_days(x, y, ARRAY[DATE '2000-01-03', DATE '2000-01-01', DATE '2000-01-03'], ARRAY[7])",
                        r -> Meaning.workingDays(
                                r.x(),
                                r.y(),
                                Set.of(LocalDate.parse("2000-01-03"), LocalDate.parse("2000-01-01")),
                                Set.of(DayOfWeek.SUNDAY))),
                strict("serial_to_date(n)", r -> Meaning.serial(r.n())),
                strict(
                        "serial_to_date(n, 1904)",
                        r -> r.n() < 0
                                ? null
                                : Meaning.inCalendar(
                                        () -> LocalDate.parse("1904-01-01").plusDays(r.n()))),
                strict(
                        "x IN (date_range(DATE '2000-01-01', DATE '2001-01-31'))",
                        r -> !r.x().isBefore(LocalDate.parse("2000-01-01"))
                                && !r.x().isAfter(LocalDate.parse("2001-01-31"))));
    }

    private static final Set<DayOfWeek> WEEKEND = Set.of(DayOfWeek.SATURDAY, DayOfWeek.SUNDAY);

    private static List<Model> times() {
        return List.of(
                strict("to_timestamp(format_timestamp(u))", Row::u),
                strict("to_timestamp(format_timestamp(u, 'd/M/yyyy H:mm'), 'd/M/yyyy H:mm')", r -> r.u().truncatedTo(
                                ChronoUnit.MINUTES)),
                strict("format_timestamp(u)", r -> Meaning.written(r.u())),
                strict("date_of(u)", r -> r.u().toLocalDate()),
                strict("at_midnight(x)", r -> r.x().atStartOfDay()),
                strict("hour(u)", r -> (long) r.u().getHour()),
                strict("minute(u)", r -> (long) r.u().getMinute()),
                strict("second(u)", r -> (long) r.u().getSecond()),
                strict("add_seconds(u, n)", r -> Meaning.timeInCalendar(() -> r.u().plusSeconds(r.n()))),
                strict("seconds_between(u, v)", r -> ChronoUnit.SECONDS.between(r.u(), r.v())),
                // A time that a library holds in nanoseconds, and one far outside of those.
                strict(
                        "seconds_between(at_midnight(DATE '2024-02-29'), v)",
                        r -> ChronoUnit.SECONDS.between(
                                LocalDate.of(2024, 2, 29).atStartOfDay(), r.v())),
                strict(
                        "seconds_between(u, add_seconds(at_midnight(DATE '2024-02-29'), 179820000000))",
                        r -> ChronoUnit.SECONDS.between(
                                r.u(), LocalDate.of(2024, 2, 29).atStartOfDay().plusSeconds(179_820_000_000L))),
                strict("epoch_to_timestamp(n)", r -> Meaning.timeInCalendar(() -> EPOCH.plusSeconds(r.n()))),
                strict(
                        "epoch_millis_to_timestamp(n)",
                        r -> Meaning.timeInCalendar(() -> EPOCH.plus(r.n(), ChronoUnit.MILLIS))),
                strict(
                        "epoch_micros_to_timestamp(n)",
                        r -> Meaning.timeInCalendar(() -> EPOCH.plus(r.n(), ChronoUnit.MICROS))),
                strict("microsecond(u)", r -> r.u().getNano() / 1000L),
                strict(
                        "add_microseconds(u, n)",
                        r -> Meaning.timeInCalendar(() -> r.u().plus(r.n(), ChronoUnit.MICROS))),
                strict("microseconds_between(u, v)", r -> ChronoUnit.MICROS.between(r.u(), r.v())),
                strict(
                        "to_timestamp(format_timestamp(u, 'd/M/yyyy H:mm:ss,SSS'), 'd/M/yyyy H:mm:ss,SSS')",
                        r -> r.u().truncatedTo(ChronoUnit.MILLIS)),
                strict("to_zone(u, 'Europe/Dublin')", r -> Meaning.inZone(r.u(), "Europe/Dublin")),
                strict("to_zone(u, 'Australia/Lord_Howe')", r -> Meaning.inZone(r.u(), "Australia/Lord_Howe")),
                strict("from_zone(u, 'America/St_Johns')", r -> Meaning.fromZone(r.u(), "America/St_Johns")),
                strict("from_zone(u, '+05:45')", r -> Meaning.fromZone(r.u(), "+05:45")),
                strict("timestamp_to_epoch(u)", r -> r.u().toEpochSecond(ZoneOffset.UTC)),
                strict("serial_to_timestamp(d)", r -> {
                    LocalDate day =
                            Meaning.serial(r.d().setScale(0, RoundingMode.FLOOR).longValueExact());
                    long seconds = r.d().remainder(BigDecimal.ONE)
                            .multiply(BigDecimal.valueOf(86_400))
                            .setScale(0, RoundingMode.HALF_UP)
                            .longValueExact();
                    return day == null ? null : day.atTime(LocalTime.MIDNIGHT).plusSeconds(seconds);
                }));
    }

    private static final LocalDateTime EPOCH = LocalDateTime.of(1970, 1, 1, 0, 0);

    private static List<Model> lists() {
        Function<Row, List<String>> parts = r -> Arrays.asList(r.s().split(Pattern.quote(","), -1));
        Function<Row, List<String>> words = r -> Arrays.asList(r.s().split(" ", -1));
        return List.of(
                strict(
                        "split_part(s, ',', 2)",
                        r -> parts.apply(r).stream().skip(1).findFirst().orElse(null)),
                strict("split_part(s, ',', -1)", r -> parts.apply(r).getLast()),
                strict("part_count(s, ' ')", r -> (long) words.apply(r).size()),
                strict(
                        "first_parts(s, ' ', 2)",
                        r -> words.apply(r).stream().limit(2).collect(spaced())),
                strict(
                        "skip_parts(s, ' ', 1)",
                        r -> words.apply(r).stream().skip(1).collect(spaced())),
                strict("skip_parts_in(s, ' ', ARRAY['', 'a'])", r -> words.apply(r).stream()
                        .dropWhile(Set.of("", "a")::contains)
                        .collect(spaced())),
                strict(
                        "remove_part(s, ' ', 'a')",
                        r -> words.apply(r).stream().filter(p -> !p.equals("a")).collect(spaced())),
                strict("remove_parts(s, ' ', ARRAY['a', 'b'])", r -> words.apply(r).stream()
                        .filter(p -> !Set.of("a", "b").contains(p))
                        .collect(spaced())),
                strict("keep_parts(s, ' ', ARRAY['a', 'b'])", r -> words.apply(r).stream()
                        .filter(Set.of("a", "b")::contains)
                        .collect(spaced())),
                strict(
                        "drop_empty_parts(s, ' ')",
                        r -> words.apply(r).stream().filter(p -> !p.isEmpty()).collect(spaced())),
                strict(
                        "sort_parts(s, ' ')",
                        r -> words.apply(r).stream().sorted(Meaning::compared).collect(spaced())),
                strict(
                        "unique_parts(s, ' ')",
                        r -> words.apply(r).stream().distinct().collect(spaced())),
                strict("unique_parts(replace(s || t, 'a', '\"'), '\"')", r -> Stream.of(
                                (r.s() + r.t()).replace("a", "\"").split("\"", -1))
                        .distinct()
                        .collect(Collectors.joining("\""))),
                strict("in_list(s, ARRAY['a', NULL, ''])", r -> Set.of("a", "").contains(r.s())),
                strict("is_key(s, MAP['a', 'x', '', 'y'])", r -> Set.of("a", "").contains(r.s())),
                strict("lookup(s, MAP['a', 'x', '', 'y'], s)", r -> Map.of("a", "x", "", "y")
                        .getOrDefault(r.s(), r.s())),
                strict("lookup(n, MAP[0, 'none', 1, 'one'])", r -> r.n() == 0 ? "none" : r.n() == 1 ? "one" : null),
                strict("replace_each(s, MAP['a', 'b', 'b', 'c'])", r -> r.s().replace("a", "b")
                        .replace("b", "c")),
                strict("replace_until_same(s, '  ', ' ', 2)", r -> {
                    String twice = r.s().replace("  ", " ").replace("  ", " ");
                    return twice.contains("  ") ? null : twice;
                }));
    }

    private static java.util.stream.Collector<CharSequence, ?, String> spaced() {
        return Collectors.joining(" ");
    }

    private static final Map<String, Evaluation> ASKED = new LinkedHashMap<>();
    private static final Map<String, List<Answer>> ANSWERS = new HashMap<>();

    /// All at once, as the engine is opened once for it.
    @BeforeAll
    static void ask() {
        models().map(Model::expression)
                .map(Expressions::subject)
                .forEach(s -> ASKED.put(s.name(), new Evaluation(s.fix(), s.rows(VALUES, 3))));
        List<List<Answer>> answers = FixEngines.ALL.getFirst().run(List.copyOf(ASKED.values()));
        ASKED.keySet().forEach(expression -> ANSWERS.put(expression, answers.get(ANSWERS.size())));
    }

    @ParameterizedTest
    @MethodSource("models")
    void theEngineSaysWhatIsWrittenDown(Model model) {
        Evaluation asked = ASKED.get(model.expression());
        List<List<Expr.Literal>> rows = asked.rows();
        Set<String> names = asked.fix().body().result().names();
        List<Answer> answers = ANSWERS.get(model.expression());
        List<String> wrong = new ArrayList<>();
        for (int i = 0; i < rows.size(); i++) {
            Row row = Row.of(asked.fix(), rows.get(i));
            boolean missing = model.strict() && names.stream().anyMatch(n -> row.maybe(n) == null);
            Object expected = missing ? null : model.meaning().apply(row);
            if (!answers.get(i).equals(new Answer.Value(expected))) {
                wrong.add(
                        rows.get(i).stream().map(v -> Literals.print(v.value())).toList() + " gives " + answers.get(i)
                                + ", not " + expected);
            }
        }
        assertThat(rows).hasSizeGreaterThan(10);
        assertThat(wrong).as(model.expression()).isEmpty();
    }

    /// A function that comes later gets a meaning here too; those of floating-point numbers have a test of their own.
    @Test
    void everyFunctionHasAMeaning() {
        Set<FunctionDef> known = new HashSet<>();
        models().forEach(m -> collect(Expressions.fix(m.expression()).body().result(), known));
        assertThat(Functions.ALL.stream().filter(f -> !known.contains(f)).map(FunctionDef::name))
                .containsExactlyInAnyOrder("to_number", "approximate", "/");
    }

    private static void collect(Expr expr, Set<FunctionDef> known) {
        switch (expr) {
            case Expr.Call call -> {
                known.add(call.function());
                call.arguments().forEach(a -> collect(a, known));
            }
            case Expr.Case choice -> {
                choice.branches().forEach(b -> collect(b.condition(), known));
                choice.branches().forEach(b -> collect(b.result(), known));
            }
            case Expr.Literal _, Expr.Name _, Expr.FixCall _ -> {}
        }
    }
}
