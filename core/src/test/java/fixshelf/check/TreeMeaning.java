package fixshelf.check;

import fixshelf.language.pattern.LikePattern;
import fixshelf.language.pattern.RegexParser;
import fixshelf.language.tree.Expr;
import fixshelf.render.JavaPatterns;
import fixshelf.type.Type;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.text.Normalizer;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.LocalTime;
import java.time.ZoneOffset;
import java.time.temporal.ChronoUnit;
import java.time.temporal.IsoFields;
import java.time.temporal.TemporalAdjusters;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/// What a whole expression means, worked out in plain Java node by node: no engine is asked, and nothing is rewritten
/// first. It holds every engine, that of the previews too.
public final class TreeMeaning {
    private static final LocalDateTime EPOCH = LocalDateTime.of(1970, 1, 1, 0, 0);

    private final Map<String, @Nullable Object> row;

    private TreeMeaning(Map<String, @Nullable Object> row) {
        this.row = row;
    }

    /// The value of the expression for a row of parameters, by their names.
    public static @Nullable Object of(Expr expr, Map<String, @Nullable Object> row) {
        return new TreeMeaning(row).value(expr);
    }

    private @Nullable Object value(Expr expr) {
        return switch (expr) {
            case Expr.Literal(Object value, Type _) -> value;
            case Expr.Name(String name, Type _) -> row.get(name);
            case Expr.Case(List<Expr.Branch> branches, Expr otherwise, Type type) -> {
                for (Expr.Branch branch : branches) {
                    if (Boolean.TRUE.equals(value(branch.condition()))) {
                        yield as(type, value(branch.result()));
                    }
                }
                yield as(type, value(otherwise));
            }
            case Expr.FixCall call -> throw new IllegalStateException("no fix is called in " + call);
            case Expr.Call call -> as(call.type(), call(call));
        };
    }

    /// A whole number where an exact one is the result; the scale of an exact one.
    private static @Nullable Object as(Type type, @Nullable Object value) {
        return switch (type) {
            case Type.Decimal(int _, int scale)
            when value instanceof Long whole -> BigDecimal.valueOf(whole).setScale(scale);
            case Type.Decimal(int _, int scale) when value instanceof BigDecimal exact -> exact.setScale(scale);
            case Type.Num _ when value instanceof Long whole -> (double) whole;
            default -> value;
        };
    }

    private @Nullable Object call(Expr.Call call) {
        List<@Nullable Object> a = new ArrayList<>();
        call.arguments().forEach(e -> a.add(value(e)));
        return switch (call.function().name()) {
            case "AND" -> Meaning.and((Boolean) a.get(0), (Boolean) a.get(1));
            case "OR" -> Meaning.not(Meaning.and(Meaning.not((Boolean) a.get(0)), Meaning.not((Boolean) a.get(1))));
            case "IS NULL" -> a.getFirst() == null;
            case "IS DISTINCT FROM" ->
                a.get(0) == null || a.get(1) == null ? a.get(0) != a.get(1) : compared(a.get(0), a.get(1)) != 0;
            case "IN" -> a.getFirst() == null ? null : among(a.getFirst(), a.subList(1, a.size()));
            case "in_list" -> a.getFirst() == null ? null : among(a.getFirst(), (List<?>) known(a, 1));
            case "coalesce" -> a.stream().filter(Objects::nonNull).findFirst().orElse(null);
            case "nullif" ->
                a.get(0) != null && a.get(1) != null && compared(a.get(0), a.get(1)) == 0 ? null : a.get(0);
            case "concat_ws" ->
                a.getFirst() == null
                        ? null
                        : Meaning.joined(
                                (String) known(a, 0), a.subList(1, a.size()).toArray());
            case "is_key" ->
                a.getFirst() == null ? null : among(a.getFirst(), List.copyOf(((Map<?, ?>) known(a, 1)).keySet()));
            case "lookup" -> lookup(a);
            default -> a.stream().anyMatch(Objects::isNull) ? null : strict(call, a);
        };
    }

    static Object known(List<@Nullable Object> a, int index) {
        return Objects.requireNonNull(a.get(index));
    }

    private static boolean among(@Nullable Object value, List<?> choices) {
        return choices.stream().anyMatch(c -> c != null && value != null && compared(value, c) == 0);
    }

    private static @Nullable Object lookup(List<@Nullable Object> a) {
        if (a.getFirst() == null) {
            return null;
        }
        for (Map.Entry<?, ?> pair : ((Map<?, ?>) known(a, 1)).entrySet()) {
            if (compared(known(a, 0), pair.getKey()) == 0) {
                return pair.getValue();
            }
        }
        return a.size() > 2 ? a.get(2) : null;
    }

    public static int compared(@Nullable Object a, @Nullable Object b) {
        return switch (Objects.requireNonNull(a)) {
            case String text -> Meaning.compared(text, (String) b);
            case Boolean truth -> truth.compareTo((Boolean) b);
            case LocalDate day -> day.compareTo((LocalDate) b);
            case LocalDateTime time -> time.compareTo((LocalDateTime) b);
            case Double number -> Double.compare(number + 0.0, number(b) + 0.0);
            default ->
                b instanceof Double other ? Double.compare(number(a) + 0.0, other + 0.0) : exact(a).compareTo(exact(b));
        };
    }

    private static BigDecimal exact(@Nullable Object value) {
        return value instanceof Long whole ? BigDecimal.valueOf(whole) : (BigDecimal) Objects.requireNonNull(value);
    }

    private static double number(@Nullable Object value) {
        return ((Number) Objects.requireNonNull(value)).doubleValue();
    }

    /// A function of values none of which is missing.
    private @Nullable Object strict(Expr.Call call, List<@Nullable Object> a) {
        return switch (call.function().group()) {
            case TEXT -> text(call, a);
            case PATTERN -> pattern(call, a);
            case COMPARISON -> comparison(call, a);
            case CONVERSION -> conversion(call, a);
            case NUMBER -> numeric(call, a);
            case DATE -> time(call, a);
            case LIST -> PartsMeaning.of(call, a);
            case NULL -> throw new IllegalStateException(call.function().name());
        };
    }

    static String s(List<@Nullable Object> a, int index) {
        return (String) known(a, index);
    }

    static long n(List<@Nullable Object> a, int index) {
        return (Long) known(a, index);
    }

    private static @Nullable Object text(Expr.Call call, List<@Nullable Object> a) {
        String text = s(a, 0);
        return switch (call.function().name()) {
            case "trim" -> trimmed(a, true, true);
            case "ltrim" -> trimmed(a, true, false);
            case "rtrim" -> trimmed(a, false, true);
            case "remove_prefix" -> text.startsWith(s(a, 1)) ? text.substring(s(a, 1).length()) : text;
            case "remove_suffix" -> text.endsWith(s(a, 1)) ? text.substring(0, text.length() - s(a, 1).length()) : text;
            case "replace" -> s(a, 1).isEmpty() ? text : text.replace(s(a, 1), s(a, 2));
            case "upper" -> Meaning.mapped(text, Character::toUpperCase);
            case "lower" -> Meaning.mapped(text, Character::toLowerCase);
            case "length" -> Meaning.length(text);
            case "substring" -> {
                long from = Meaning.clamped(n(a, 1));
                yield Meaning.between(
                        text, from, a.size() > 2 ? from + Math.max(0, Meaning.clamped(n(a, 2))) : Long.MAX_VALUE);
            }
            case "left" -> Meaning.between(text, 1, 1 + Math.max(0, Meaning.clamped(n(a, 1))));
            case "right" ->
                Meaning.between(text, Meaning.length(text) + 1 - Math.max(0, Meaning.clamped(n(a, 1))), Long.MAX_VALUE);
            case "position" -> Meaning.position(text, s(a, 1));
            case "starts_with" -> text.startsWith(s(a, 1));
            case "ends_with" -> text.endsWith(s(a, 1));
            case "contains" -> text.contains(s(a, 1));
            case "repeat" -> text.repeat((int) Math.max(0, n(a, 1)));
            case "||", "concat" -> a.stream().map(String::valueOf).collect(Collectors.joining());
            case "text_between" -> Meaning.inside(text, s(a, 1), s(a, 2));
            case "reverse" -> new StringBuilder(text).reverse().toString();
            case "initcap" -> Meaning.capitals(text);
            case "lpad" -> Meaning.filling(text, (int) n(a, 1), a.size() > 2 ? s(a, 2) : " ") + text;
            case "rpad" -> text + Meaning.filling(text, (int) n(a, 1), a.size() > 2 ? s(a, 2) : " ");
            case "translate" -> translated(text, s(a, 1), s(a, 2));
            case "strip_accents" -> Meaning.withoutAccents(text);
            case "normalize" -> Normalizer.normalize(text, Normalizer.Form.NFC);
            case "replace_any_case" -> anyCase(text, s(a, 1), s(a, 2));
            default -> throw unknown(call);
        };
    }

    private static String trimmed(List<@Nullable Object> a, boolean start, boolean end) {
        String signs = a.size() > 1 ? s(a, 1) : " ";
        int[] points = s(a, 0).codePoints().toArray();
        int from = 0;
        int to = points.length;
        while (start && from < to && signs.indexOf(points[from]) >= 0) {
            from++;
        }
        while (end && to > from && signs.indexOf(points[to - 1]) >= 0) {
            to--;
        }
        return new String(points, from, to - from);
    }

    private static String translated(String text, String from, String to) {
        int[] all = from.codePoints().toArray();
        int[] into = to.codePoints().toArray();
        StringBuilder out = new StringBuilder();
        text.codePoints().forEach(c -> {
            int at = 0;
            while (at < all.length && all[at] != c) {
                at++;
            }
            if (at == all.length) {
                out.appendCodePoint(c);
            } else if (at < into.length) {
                out.appendCodePoint(into[at]);
            }
        });
        return out.toString();
    }

    private static String anyCase(String text, String search, String replacement) {
        int[] points = text.codePoints().toArray();
        int[] wanted = search.codePoints().toArray();
        StringBuilder out = new StringBuilder();
        for (int i = 0; i < points.length; ) {
            boolean found = wanted.length > 0 && i + wanted.length <= points.length;
            for (int k = 0; found && k < wanted.length; k++) {
                int c = points[i + k];
                int w = wanted[k];
                found = c == w || c == Character.toUpperCase(w) || c == Character.toLowerCase(w);
            }
            if (found) {
                out.append(replacement);
                i += wanted.length;
            } else {
                out.appendCodePoint(points[i++]);
            }
        }
        return out.toString();
    }

    private static @Nullable Object pattern(Expr.Call call, List<@Nullable Object> a) {
        Pattern pattern = JavaPatterns.of(RegexParser.parse(s(a, 1)).get());
        Matcher matcher = pattern.matcher(s(a, 0));
        return switch (call.function().name()) {
            case "regexp_like" -> matcher.find();
            case "regexp_extract" ->
                matcher.find() ? Objects.requireNonNullElse(matcher.group(a.size() > 2 ? (int) n(a, 2) : 0), "") : null;
            case "regexp_replace" -> matcher.replaceAll(m -> Matcher.quoteReplacement(replacement(s(a, 2), m)));
            default -> throw unknown(call);
        };
    }

    private static String replacement(String written, java.util.regex.MatchResult match) {
        StringBuilder out = new StringBuilder();
        for (int i = 0; i < written.length(); i++) {
            char c = written.charAt(i);
            if (c != '\\') {
                out.append(c);
                continue;
            }
            char next = written.charAt(++i);
            out.append(next == '\\' ? "\\" : Objects.requireNonNullElse(match.group(next - '0'), ""));
        }
        return out.toString();
    }

    private static @Nullable Object comparison(Expr.Call call, List<@Nullable Object> a) {
        return switch (call.function().name()) {
            case "=" -> compared(a.get(0), a.get(1)) == 0;
            case "<>" -> compared(a.get(0), a.get(1)) != 0;
            case "<" -> compared(a.get(0), a.get(1)) < 0;
            case "<=" -> compared(a.get(0), a.get(1)) <= 0;
            case ">" -> compared(a.get(0), a.get(1)) > 0;
            case ">=" -> compared(a.get(0), a.get(1)) >= 0;
            case "greatest" -> a.stream().max(TreeMeaning::compared).orElseThrow();
            case "least" -> a.stream().min(TreeMeaning::compared).orElseThrow();
            case "NOT" -> !(Boolean) known(a, 0);
            case "LIKE" -> {
                String regex = LikePattern.of(call.arguments())
                        .orElseThrow()
                        .write("(?s:.*)", "(?s:.)", c -> Pattern.quote(Character.toString(c)));
                yield Pattern.compile(regex).matcher(s(a, 0)).matches();
            }
            default -> throw unknown(call);
        };
    }

    private static @Nullable Object conversion(Expr.Call call, List<@Nullable Object> a) {
        return switch (call.function().name()) {
            case "to_integer" -> Meaning.whole(s(a, 0));
            case "to_decimal" -> Meaning.exact(s(a, 0), a.size() > 1 ? (int) n(a, 1) : 4);
            case "to_text" -> {
                boolean exact = call.argument(0).type() instanceof Type.Decimal;
                yield exact ? exact(a.get(0)).toPlainString() : Long.toString(n(a, 0));
            }
            case "to_number" -> number(s(a, 0));
            case "approximate" -> exact(a.get(0)).doubleValue();
            case "chr" -> Character.toString((int) n(a, 0));
            default -> throw unknown(call);
        };
    }

    private static @Nullable Double number(String text) {
        Matcher shaped = Pattern.compile(
                        "[\\t-\\r ]*([+-]?([0-9]+\\.?[0-9]*|\\.[0-9]+)([eE][+-]?[0-9]{1,3})?)[\\t-\\r ]*")
                .matcher(text);
        if (text.length() > 100 || !shaped.matches()) {
            return null;
        }
        double number = Double.parseDouble(shaped.group(1));
        return Math.abs(number) > 1e300 ? null : Math.abs(number) < 1e-300 ? 0.0 : number + 0.0;
    }

    private static @Nullable Object numeric(Expr.Call call, List<@Nullable Object> a) {
        String name = call.function().name();
        if (a.stream().limit(2).anyMatch(Double.class::isInstance)) {
            return approximate(call, a);
        }
        boolean whole = a.stream().limit(2).allMatch(Long.class::isInstance) && !(call.type() instanceof Type.Decimal);
        BigDecimal x = exact(a.get(0));
        BigDecimal y = a.size() > 1 ? exact(a.get(1)) : BigDecimal.ONE;
        return switch (name) {
            case "+" -> whole ? Meaning.fitting(() -> Math.addExact(n(a, 0), n(a, 1))) : x.add(y);
            case "-" -> whole ? Meaning.fitting(() -> Math.subtractExact(n(a, 0), n(a, 1))) : x.subtract(y);
            case "*" -> whole ? Meaning.fitting(() -> Math.multiplyExact(n(a, 0), n(a, 1))) : x.multiply(y);
            case "div" -> Meaning.fitting(() -> Math.divideExact(n(a, 0), n(a, 1)));
            case "mod" ->
                y.signum() == 0 || Meaning.quotient(x, y, 0) == null && !whole
                        ? null
                        : whole ? (Object) (n(a, 0) % n(a, 1)) : x.remainder(y);
            case "abs" -> whole ? Meaning.fitting(() -> Math.absExact(n(a, 0))) : (Object) x.abs();
            case "round" -> Meaning.rounded(x, (int) n(a, 1));
            case "floor" -> within64(x.setScale(0, RoundingMode.FLOOR));
            case "ceil" -> within64(x.setScale(0, RoundingMode.CEILING));
            case "narrow" -> {
                int scale = (int) n(a, 2);
                boolean fits = x.stripTrailingZeros().scale() <= scale
                        && x.abs().compareTo(BigDecimal.TEN.pow((int) n(a, 1) - scale)) < 0;
                yield fits ? x.setScale(scale) : null;
            }
            case "divide" -> Meaning.quotient(x, y, (int) n(a, 2));
            case "round_to_part" -> {
                BigDecimal nearest = Meaning.rounded(x.multiply(y), 0);
                yield nearest == null ? null : Meaning.quotient(nearest, y, (int) n(a, 2));
            }
            default -> throw unknown(call);
        };
    }

    private static @Nullable Long within64(BigDecimal number) {
        return Meaning.fitting(number::longValueExact);
    }

    private static @Nullable Object approximate(Expr.Call call, List<@Nullable Object> a) {
        double x = number(a.get(0));
        double y = a.size() > 1 ? number(a.get(1)) : 1;
        String name = call.function().name();
        boolean sides = Math.abs(x) <= 1e150 && Math.abs(y) <= 1e150;
        boolean factors = sides && (x == 0 || Math.abs(x) >= 1e-150) && (y == 0 || Math.abs(y) >= 1e-150);
        return switch (name) {
            case "+" -> sides ? x + y : null;
            case "-" -> sides ? x - y : null;
            case "*" -> factors ? x * y : null;
            case "/" -> factors && y != 0 ? x / y : null;
            case "abs" -> Math.abs(x);
            case "floor" -> Math.abs(x) < 1L << 53 ? (long) Math.floor(x) : null;
            case "ceil" -> Math.abs(x) < 1L << 53 ? (long) Math.ceil(x) : null;
            case "round" ->
                Math.abs(x) < 1e15 ? Meaning.rounded(new BigDecimal(Double.toString(x)), (int) n(a, 1)) : null;
            default -> throw unknown(call);
        };
    }

    private static @Nullable Object time(Expr.Call call, List<@Nullable Object> a) {
        return switch (a.getFirst()) {
            case LocalDate day -> ofDay(call, day, a);
            case LocalDateTime time -> ofTime(call, time, a);
            case String text
            when a.size() == 1 && call.function().name().equals("to_timestamp") ->
                text.matches(".{19}\\.[0-9]{1,6}")
                        ? LayoutMeaning.read(
                                text, List.of("yyyy-MM-dd HH:mm:ss." + "S".repeat(text.length() - 20)), false)
                        : LayoutMeaning.read(text, layouts(a, call), false);
            case String text ->
                LayoutMeaning.read(
                        text, layouts(a, call), call.function().name().equals("to_date"));
            case Long number when call.function().name().startsWith("serial_to") -> serial(call, a, exact(number));
            case BigDecimal number -> serial(call, a, number);
            case Long millis
            when call.function().name().equals("epoch_millis_to_timestamp") ->
                Meaning.timeInCalendar(() -> EPOCH.plus(millis, ChronoUnit.MILLIS));
            case Long micros
            when call.function().name().equals("epoch_micros_to_timestamp") ->
                Meaning.timeInCalendar(() -> EPOCH.plus(micros, ChronoUnit.MICROS));
            case Long seconds -> Meaning.timeInCalendar(() -> EPOCH.plusSeconds(seconds));
            case null, default -> throw unknown(call);
        };
    }

    private static List<String> layouts(List<@Nullable Object> a, Expr.Call call) {
        boolean day = call.type() instanceof Type.Date || call.function().name().equals("format_date");
        return a.size() > 1
                ? a.stream().skip(1).map(String.class::cast).toList()
                : List.of(day ? "yyyy-MM-dd" : "yyyy-MM-dd HH:mm:ss");
    }

    private static @Nullable Object ofDay(Expr.Call call, LocalDate day, List<@Nullable Object> a) {
        return switch (call.function().name()) {
            case "format_date" ->
                LayoutMeaning.write(day.atStartOfDay(), layouts(a, call).getFirst());
            case "year" -> (long) day.getYear();
            case "month" -> (long) day.getMonthValue();
            case "day" -> (long) day.getDayOfMonth();
            case "weekday" -> (long) day.getDayOfWeek().getValue();
            case "week" -> day.getLong(IsoFields.WEEK_OF_WEEK_BASED_YEAR);
            case "add_days" -> Meaning.inCalendar(() -> day.plusDays(n(a, 1)));
            case "add_months" -> Meaning.inCalendar(() -> day.plusMonths(n(a, 1)));
            case "last_day" -> day.with(TemporalAdjusters.lastDayOfMonth());
            case "days_between" -> ChronoUnit.DAYS.between(day, (LocalDate) a.get(1));
            case "at_midnight" -> day.atStartOfDay();
            case "working_days" -> {
                Set<LocalDate> holidays = a.size() < 3
                        ? Set.of()
                        : ((List<?>) known(a, 2))
                                .stream().map(LocalDate.class::cast).collect(Collectors.toSet());
                Set<DayOfWeek> weekend = a.size() < 4
                        ? Set.of(DayOfWeek.SATURDAY, DayOfWeek.SUNDAY)
                        : ((List<?>) known(a, 3))
                                .stream()
                                        .map(d -> DayOfWeek.of(((Long) d).intValue()))
                                        .collect(Collectors.toSet());
                yield Meaning.workingDays(day, (LocalDate) known(a, 1), holidays, weekend);
            }
            default -> throw unknown(call);
        };
    }

    private static @Nullable Object ofTime(Expr.Call call, LocalDateTime time, List<@Nullable Object> a) {
        return switch (call.function().name()) {
            case "format_timestamp" ->
                a.size() == 1
                        ? Meaning.written(time)
                        : LayoutMeaning.write(time, layouts(a, call).getFirst());
            case "date_of" -> time.toLocalDate();
            case "hour" -> (long) time.getHour();
            case "minute" -> (long) time.getMinute();
            case "second" -> (long) time.getSecond();
            case "add_seconds" -> Meaning.timeInCalendar(() -> time.plusSeconds(n(a, 1)));
            case "seconds_between" -> ChronoUnit.SECONDS.between(time, (LocalDateTime) a.get(1));
            case "microsecond" -> time.getNano() / 1000L;
            case "add_microseconds" -> Meaning.timeInCalendar(() -> time.plus(n(a, 1), ChronoUnit.MICROS));
            case "microseconds_between" -> ChronoUnit.MICROS.between(time, (LocalDateTime) a.get(1));
            case "timestamp_to_epoch" -> time.toEpochSecond(ZoneOffset.UTC);
            case "to_zone" -> Meaning.inZone(time, (String) known(a, 1));
            case "from_zone" -> Meaning.fromZone(time, (String) known(a, 1));
            default -> throw unknown(call);
        };
    }

    private static @Nullable Object serial(Expr.Call call, List<@Nullable Object> a, BigDecimal serial) {
        long number;
        try {
            number = serial.setScale(0, RoundingMode.FLOOR).longValueExact();
        } catch (ArithmeticException e) {
            return null;
        }
        boolean of1904 = a.size() > 1 && n(a, 1) == 1904;
        LocalDate day = !of1904
                ? Meaning.serial(number)
                : number < 0
                        ? null
                        : Meaning.inCalendar(() -> LocalDate.of(1904, 1, 1).plusDays(number));
        if (day == null || call.type() instanceof Type.Date) {
            return day;
        }
        long seconds = serial.subtract(BigDecimal.valueOf(number))
                .multiply(BigDecimal.valueOf(86_400))
                .setScale(0, RoundingMode.HALF_UP)
                .longValueExact();
        return Meaning.timeInCalendar(() -> day.atTime(LocalTime.MIDNIGHT).plusSeconds(seconds));
    }

    static IllegalStateException unknown(Expr.Call call) {
        return new IllegalStateException("no meaning for " + call.function().name());
    }
}
