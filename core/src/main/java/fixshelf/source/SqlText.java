package fixshelf.source;

import java.math.BigDecimal;
import java.sql.Blob;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.time.OffsetDateTime;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.HexFormat;
import org.jspecify.annotations.Nullable;

/// A value of a database as text: numbers with all their digits and no power of ten, bytes as
/// hexadecimal digits, moments without a fraction of nothing, everything else as the driver writes
/// it.
public final class SqlText {
    private SqlText() {}

    /// A moment is written in one way, wherever this machine stands.
    private static String utc(OffsetDateTime moment) {
        OffsetDateTime there = moment.withOffsetSameInstant(ZoneOffset.UTC);
        return there.toLocalDate() + " " + DateTimeFormatter.ISO_LOCAL_TIME.format(there) + "+00";
    }

    /// What stands in a column of the row, counted from 1; null for what is missing.
    public static @Nullable String of(ResultSet rows, int column) throws SQLException {
        Object value = rows.getObject(column);
        return switch (value) {
            // A day that never was, such as 0000-00-00, is no object of any kind, but it stands there.
            case null -> rows.getString(column);
            case byte[] bytes -> HexFormat.of().formatHex(bytes);
            case Blob blob -> HexFormat.of().formatHex(blob.getBytes(1, Math.toIntExact(blob.length())));
            case Double number when Double.isFinite(number) -> WorkbookRecords.digits(BigDecimal.valueOf(number));
            case Float number when Float.isFinite(number) -> WorkbookRecords.digits(new BigDecimal(number.toString()));
            case BigDecimal number -> number.toPlainString();
            case Boolean truth -> truth.toString();
            case OffsetDateTime moment -> utc(moment);
            case java.sql.Timestamp _ ->
                rows.getString(column).replaceFirst("(\\.[0-9]*?)0+$", "$1").replaceFirst("\\.$", "");
            default -> rows.getString(column);
        };
    }
}
