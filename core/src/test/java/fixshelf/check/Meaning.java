package fixshelf.check;

import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import java.math.BigDecimal;
import java.math.RoundingMode;
import java.text.Normalizer;
import java.time.DateTimeException;
import java.time.DayOfWeek;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.time.zone.ZoneRules;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.IntUnaryOperator;
import java.util.function.LongSupplier;
import java.util.function.Supplier;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;

/// The reference of values in plain Java, as slow and as plain as can be.
final class Meaning {
    private Meaning() {}

    /// One row of arguments, by the names of the parameters.
    record Row(Map<String, @Nullable Object> values) {
        static Row of(Definition fix, List<Expr.Literal> arguments) {
            Map<String, @Nullable Object> values = new HashMap<>();
            for (int i = 0; i < arguments.size(); i++) {
                values.put(fix.parameters().get(i).name(), arguments.get(i).value());
            }
            return new Row(values);
        }

        @Nullable
        Object maybe(String name) {
            return values.get(name);
        }

        private Object known(String name) {
            return Objects.requireNonNull(values.get(name));
        }

        String s() {
            return (String) known("s");
        }

        String t() {
            return (String) known("t");
        }

        long n() {
            return (Long) known("n");
        }

        long m() {
            return (Long) known("m");
        }

        BigDecimal d() {
            return (BigDecimal) known("d");
        }

        BigDecimal e() {
            return (BigDecimal) known("e");
        }

        LocalDate x() {
            return (LocalDate) known("x");
        }

        LocalDate y() {
            return (LocalDate) known("y");
        }

        LocalDateTime u() {
            return (LocalDateTime) known("u");
        }

        LocalDateTime v() {
            return (LocalDateTime) known("v");
        }

        /// Whether a number is more than 0; null where it is.
        @Nullable
        Boolean positive(String name) {
            return maybe(name) instanceof Long number ? number > 0 : null;
        }
    }

    static @Nullable Boolean and(@Nullable Boolean a, @Nullable Boolean b) {
        if (Boolean.FALSE.equals(a) || Boolean.FALSE.equals(b)) {
            return false;
        }
        return a == null || b == null ? null : true;
    }

    static @Nullable Boolean not(@Nullable Boolean a) {
        return a == null ? null : !a;
    }

    static long length(String text) {
        return text.codePointCount(0, text.length());
    }

    /// The code points at the places from `from` on, before `to`; the first is 1.
    static String between(String text, long from, long to) {
        int[] points = text.codePoints().toArray();
        StringBuilder out = new StringBuilder();
        for (int i = 0; i < points.length; i++) {
            if (i + 1 >= from && i + 1 < to) {
                out.appendCodePoint(points[i]);
            }
        }
        return out.toString();
    }

    static long clamped(long number) {
        return Math.max(-1_000_000_000L, Math.min(1_000_000_000L, number));
    }

    static String trimmed(String text, String signs, boolean start, boolean end) {
        int from = 0;
        int to = text.length();
        while (start && from < to && signs.indexOf(text.charAt(from)) >= 0) {
            from++;
        }
        while (end && to > from && signs.indexOf(text.charAt(to - 1)) >= 0) {
            to--;
        }
        return text.substring(from, to);
    }

    static String mapped(String text, IntUnaryOperator letter) {
        return text.codePoints().map(letter).mapToObj(Character::toString).collect(Collectors.joining());
    }

    static long position(String text, String search) {
        int at = text.indexOf(search);
        return at < 0 ? 0 : length(text.substring(0, at)) + 1;
    }

    static @Nullable String joined(String separator, @Nullable Object... texts) {
        List<String> known = Arrays.stream(texts)
                .filter(Objects::nonNull)
                .map(String::valueOf)
                .toList();
        return known.isEmpty() ? null : String.join(separator, known);
    }

    static @Nullable String inside(String text, String before, String after) {
        int from = text.indexOf(before);
        int to = from < 0 ? -1 : text.indexOf(after, from + before.length());
        return to < 0 ? null : text.substring(from + before.length(), to);
    }

    static String capitals(String text) {
        StringBuilder out = new StringBuilder();
        boolean inside = false;
        for (int c : text.codePoints().toArray()) {
            boolean word = Character.isLetter(c) || Character.getType(c) == Character.DECIMAL_DIGIT_NUMBER;
            int type = Character.getType(c);
            boolean mark = type == Character.NON_SPACING_MARK
                    || type == Character.ENCLOSING_MARK
                    || type == Character.COMBINING_SPACING_MARK;
            out.appendCodePoint(!word ? c : inside ? Character.toLowerCase(c) : Character.toUpperCase(c));
            inside = word || inside && mark;
        }
        return out.toString();
    }

    static String filling(String text, int width, String fill) {
        int missing = (int) Math.max(0, width - length(text));
        return between(fill.repeat(missing), 1, missing + 1L);
    }

    static String withoutAccents(String text) {
        return text.codePoints()
                .filter(c -> c < 0x300 || c > 0x36F)
                .mapToObj(Character::toString)
                .map(c -> {
                    int point = c.codePointAt(0);
                    boolean latin = point >= 0xC0 && point <= 0x24F || point >= 0x1E00 && point <= 0x1EFF;
                    return latin ? Normalizer.normalize(c, Normalizer.Form.NFD).replaceAll("\\p{Mn}", "") : c;
                })
                .collect(Collectors.joining());
    }

    static @Nullable String found(String text, String pattern, int group) {
        Matcher matcher = Pattern.compile(pattern).matcher(text);
        return matcher.find() ? Objects.requireNonNullElse(matcher.group(group), "") : null;
    }

    static int compared(String a, String b) {
        return Arrays.compare(a.codePoints().toArray(), b.codePoints().toArray());
    }

    private static final String WHITE = "[\\t-\\r ]*";

    static @Nullable Long whole(String text) {
        if (!text.matches(WHITE + "[+-]?[0-9]{1,38}" + WHITE)) {
            return null;
        }
        try {
            return Long.parseLong(text.strip());
        } catch (NumberFormatException e) {
            return null;
        }
    }

    static @Nullable BigDecimal exact(String text, int scale) {
        boolean shaped = text.length() <= 100 && text.matches(WHITE + "[+-]?([0-9]+\\.?[0-9]*|\\.[0-9]+)" + WHITE);
        return shaped ? rounded(new BigDecimal(text.strip()), scale) : null;
    }

    /// As `decimal(18, scale)`, or null.
    static @Nullable BigDecimal rounded(BigDecimal number, int scale) {
        BigDecimal rounded = number.setScale(scale, RoundingMode.HALF_UP);
        return rounded.abs().compareTo(BigDecimal.TEN.pow(18 - scale)) < 0 ? rounded : null;
    }

    static @Nullable BigDecimal quotient(BigDecimal dividend, BigDecimal divisor, int scale) {
        return divisor.signum() == 0 ? null : rounded(dividend.divide(divisor, scale, RoundingMode.HALF_UP), scale);
    }

    static @Nullable Long fitting(LongSupplier computed) {
        try {
            return computed.getAsLong();
        } catch (ArithmeticException e) {
            return null;
        }
    }

    static @Nullable LocalDate inCalendar(Supplier<LocalDate> computed) {
        try {
            LocalDate day = computed.get();
            return day.getYear() >= 1 && day.getYear() <= 9999 ? day : null;
        } catch (DateTimeException | ArithmeticException e) {
            return null;
        }
    }

    /// In the standard's order, with a fraction as short as it can be.
    static String written(LocalDateTime time) {
        String whole = time.withNano(0).format(DateTimeFormatter.ofPattern("uuuu-MM-dd HH:mm:ss"));
        String part = String.format(".%06d", time.getNano() / 1000);
        return whole + part.replaceFirst("\\.?0*$", "");
    }

    static @Nullable LocalDateTime timeInCalendar(Supplier<LocalDateTime> computed) {
        try {
            LocalDateTime time = computed.get();
            return time.getYear() >= 1 && time.getYear() <= 9999 ? time : null;
        } catch (DateTimeException | ArithmeticException e) {
            return null;
        }
    }

    /// What a clock shows in a zone at a universal time, in the years of the rule that is in force.
    static @Nullable LocalDateTime inZone(LocalDateTime universal, String zone) {
        ZoneRules rules = ZoneId.of(zone).getRules();
        return universal.getYear() < firstYear(rules)
                ? null
                : timeInCalendar(() -> universal.plusSeconds(
                        rules.getOffset(universal.toInstant(ZoneOffset.UTC)).getTotalSeconds()));
    }

    /// The way back: the earlier of two, none in a gap.
    static @Nullable LocalDateTime fromZone(LocalDateTime local, String zone) {
        ZoneRules rules = ZoneId.of(zone).getRules();
        List<ZoneOffset> offsets = rules.getValidOffsets(local);
        return local.getYear() < firstYear(rules) || offsets.isEmpty()
                ? null
                : timeInCalendar(() -> local.minusSeconds(offsets.getFirst().getTotalSeconds()));
    }

    static int firstYear(ZoneRules rules) {
        return rules.getTransitions().isEmpty()
                ? 1
                : rules.getTransitions().getLast().getDateTimeAfter().getYear() + 1;
    }

    static @Nullable LocalDate day(String text, String pattern, int year, int month, int day) {
        Matcher matcher = Pattern.compile(pattern).matcher(text);
        return matcher.matches()
                ? inCalendar(() -> LocalDate.of(
                        Integer.parseInt(matcher.group(year)),
                        Integer.parseInt(matcher.group(month)),
                        Integer.parseInt(matcher.group(day))))
                : null;
    }

    static @Nullable LocalDate serial(long serial) {
        boolean never = serial < 1 || serial == 60;
        LocalDate base = LocalDate.of(1899, 12, serial < 60 ? 31 : 30);
        return never ? null : inCalendar(() -> base.plusDays(serial));
    }

    static long workingDays(LocalDate start, LocalDate end, Set<LocalDate> holidays, Set<DayOfWeek> weekend) {
        if (end.isBefore(start)) {
            return -workingDays(end, start, holidays, weekend);
        }
        long days = end.toEpochDay() - start.toEpochDay() + 1;
        long inWeeks = days / 7 * (7 - weekend.size());
        long rest = Stream.iterate(start.plusDays(days / 7 * 7), d -> !d.isAfter(end), d -> d.plusDays(1))
                .filter(d -> !weekend.contains(d.getDayOfWeek()))
                .count();
        long free = holidays.stream()
                .filter(d -> !d.isBefore(start) && !d.isAfter(end) && !weekend.contains(d.getDayOfWeek()))
                .count();
        return inWeeks + rest - free;
    }
}
