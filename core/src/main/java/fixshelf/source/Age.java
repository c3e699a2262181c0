package fixshelf.source;

import java.time.Duration;
import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;

/// How long ago something was, in words.
public final class Age {
    private static final DateTimeFormatter TIME = DateTimeFormatter.ofPattern("yyyy-MM-dd HH:mm");

    private Age() {}

    /// `3 minutes ago`; with the day and time where it is longer than an hour.
    public static String of(Instant when) {
        long minutes = Math.max(0, Duration.between(when, Instant.now()).toMinutes());
        if (minutes == 0) {
            return "just now";
        }
        if (minutes < 60) {
            return count(minutes, "minute");
        }
        String then = " (" + TIME.format(when.atZone(ZoneId.systemDefault())) + ")";
        return (minutes < 48 * 60 ? count(minutes / 60, "hour") : count(minutes / (24 * 60), "day")) + then;
    }

    private static String count(long number, String unit) {
        return number + " " + unit + (number == 1 ? "" : "s") + " ago";
    }
}
