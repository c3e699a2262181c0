package fixshelf.source;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;

/// Days and times of a workbook, which are stored as numbers of days, and told apart from other numbers by the format
/// of their cell. Days are counted from 1899-12-31, and there was a 60th day, 1900-02-29, which never was; or from
/// 1904-01-01 (ECMA-376, part 1, 18.17.4.1).
final class SerialDay {
    private static final Set<Integer> BUILT_IN = Set.of(14, 15, 16, 17, 18, 19, 20, 21, 22, 45, 46, 47);
    private static final Set<Integer> TIMES = Set.of(18, 19, 20, 21, 45, 46, 47);
    private static final BigDecimal MILLIS = BigDecimal.valueOf(86_400_000L);
    private static final long LAST = 2_958_465;
    private static final DateTimeFormatter SECONDS = DateTimeFormatter.ofPattern("uuuu-MM-dd HH:mm:ss");
    private static final DateTimeFormatter PARTS = DateTimeFormatter.ofPattern("uuuu-MM-dd HH:mm:ss.SSS");

    private SerialDay() {}

    /// The day, moment or time as text; empty where the cell holds another number, or a day that never was.
    ///
    /// @param format of the cell
    /// @param id of the format, which says enough where it is a built-in one
    static Optional<String> text(
            BigDecimal serial, String format, @org.jspecify.annotations.Nullable Integer id, boolean from1904) {
        String plain = plain(format);
        boolean isDay = id != null && BUILT_IN.contains(id) || plain.matches(".*[ymdhs].*");
        if (!isDay || serial.signum() < 0) {
            return Optional.empty();
        }
        long millis = serial.multiply(MILLIS).setScale(0, RoundingMode.HALF_UP).longValueExact();
        long days = Math.floorDiv(millis, 86_400_000L);
        long rest = Math.floorMod(millis, 86_400_000L);
        boolean onlyTime = id != null && TIMES.contains(id) || !plain.matches(".*[yd].*") && plain.matches(".*[hs].*");
        if (days > LAST || !from1904 && days == 60) {
            return Optional.empty();
        }
        if (onlyTime && days == 0) {
            String text = LocalDateTime.of(2000, 1, 1, 0, 0)
                    .plusNanos(rest * 1_000_000)
                    .format(rest % 1000 == 0 ? SECONDS : PARTS);
            return Optional.of(text.substring(11));
        }
        LocalDate base = from1904
                ? LocalDate.of(1904, 1, 1)
                : days < 60 ? LocalDate.of(1899, 12, 31) : LocalDate.of(1899, 12, 30);
        LocalDate day = base.plusDays(days);
        return Optional.of(
                rest == 0 && !plain.matches(".*[hs].*")
                        ? day.toString()
                        : day.atStartOfDay().plusNanos(rest * 1_000_000).format(rest % 1000 == 0 ? SECONDS : PARTS));
    }

    /// A format without what stands in quotes and brackets, and behind a backslash.
    private static String plain(String format) {
        String first = format.split(";", 2)[0];
        return first.replaceAll("\"[^\"]*\"|\\\\.|_.|\\*.", "")
                .replaceAll("\\[(?![hms]+\\])[^\\]]*\\]", "")
                .replaceAll("(?i)general|e[+-]0+|[#0?.,%]+", "")
                .toLowerCase(Locale.ROOT);
    }
}
