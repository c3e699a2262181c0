package fixshelf.source;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.format.DateTimeFormatter;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/// Days and times of a workbook, which are stored as numbers of days, and told apart from other numbers by the format
/// of their cell. Days are counted from 1899-12-31, and there was a 60th day, 1900-02-29, which never was; or from
/// 1904-01-01 (ECMA-376, part 1, 18.17.4.1).
final class SerialDay {
    private static final Set<Integer> BUILT_IN = Set.of(14, 15, 16, 17, 18, 19, 20, 21, 22, 45, 46, 47);
    private static final Set<Integer> TIMES = Set.of(18, 19, 20, 21, 45, 46, 47);
    private static final long DAY = 86_400_000L;
    private static final BigDecimal MILLIS = BigDecimal.valueOf(DAY);
    private static final long LAST = 2_958_465;
    private static final DateTimeFormatter SECONDS = DateTimeFormatter.ofPattern("uuuu-MM-dd HH:mm:ss");
    private static final DateTimeFormatter PARTS = DateTimeFormatter.ofPattern("uuuu-MM-dd HH:mm:ss.SSS");

    private SerialDay() {}

    /// What the format of a cell makes of its number.
    enum Shown {
        NUMBER,
        DAY,
        MOMENT,
        TIME,
        /// Hours that go on beyond a day: `30:00:00`.
        ELAPSED
    }

    /// What a format makes of numbers.
    ///
    /// @param id of the format, which says enough where it is a built-in one
    static Shown shown(String format, @Nullable Integer id) {
        String plain = plain(format);
        if (!(id != null && BUILT_IN.contains(id)) && !plain.matches(".*[ymdhs].*")) {
            return Shown.NUMBER;
        }
        if (plain.matches(".*\\[[hms]+\\].*")) {
            return Shown.ELAPSED;
        }
        boolean time = plain.matches(".*[hs].*");
        boolean day = plain.matches(".*[yd].*");
        return id != null && TIMES.contains(id) || time && !day
                ? Shown.TIME
                : time || id != null && id == 22 ? Shown.MOMENT : Shown.DAY;
    }

    /// The day, moment or time as text; empty where the cell holds another number, or a day that never was.
    static Optional<String> text(BigDecimal serial, Shown shown, boolean from1904) {
        if (shown == Shown.NUMBER || serial.signum() < 0 || serial.compareTo(BigDecimal.valueOf(LAST + 1)) >= 0) {
            return Optional.empty();
        }
        long millis = serial.multiply(MILLIS).setScale(0, RoundingMode.HALF_UP).longValueExact();
        long days = Math.floorDiv(millis, DAY);
        long rest = Math.floorMod(millis, DAY);
        if (shown == Shown.ELAPSED) {
            return Optional.of(String.format(
                    "%02d:%02d:%02d%s",
                    millis / 3_600_000,
                    millis / 60_000 % 60,
                    millis / 1_000 % 60,
                    millis % 1000 == 0 ? "" : String.format(".%03d", millis % 1000)));
        }
        if (days > LAST || !from1904 && days == 60) {
            return Optional.empty();
        }
        LocalDateTime moment =
                base(days, from1904).plusDays(days).atStartOfDay().plusNanos(rest * 1_000_000);
        String written = moment.format(rest % 1000 == 0 ? SECONDS : PARTS);
        if (shown == Shown.TIME && days == 0) {
            return Optional.of(written.substring(11));
        }
        return Optional.of(
                rest == 0 && shown == Shown.DAY ? moment.toLocalDate().toString() : written);
    }

    private static LocalDate base(long days, boolean from1904) {
        return from1904
                ? LocalDate.of(1904, 1, 1)
                : days < 60 ? LocalDate.of(1899, 12, 31) : LocalDate.of(1899, 12, 30);
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
