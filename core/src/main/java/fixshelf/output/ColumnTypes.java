package fixshelf.output;

import fixshelf.engine.DuckSession;
import fixshelf.table.Field;
import fixshelf.type.Type;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/// What the columns of a new table are, and which values a column cannot hold.
final class ColumnTypes {
    private final String engine;

    ColumnTypes(String engine) {
        this.engine = engine;
    }

    /// A column that is there already.
    ///
    /// @param jdbc one of [java.sql.Types]
    /// @param size how many characters or digits
    /// @param needed whether it must have a value and says none by itself
    record Known(String name, int jdbc, String type, int size, int digits, boolean needed) {
        /// The type as people write it; PostgreSQL has short names of its own.
        String shown() {
            String small = type.toLowerCase(Locale.ROOT);
            return switch (small) {
                case "int2" -> "smallint";
                case "int4" -> "integer";
                case "int8" -> "bigint";
                case "float4" -> "real";
                case "float8" -> "double precision";
                case "bool" -> "boolean";
                case "bpchar" -> "char";
                default -> small;
            };
        }
    }

    /// A condition that is true for values that cannot be held, in the language of the session, and what holds them.
    record Limit(String condition, String holder) {}

    /// The names of types in an engine; a decimal with its digits where there is a name for it.
    private record Names(
            String text, String integer, String decimal, String number, String truth, String day, String moment) {}

    /// SQLite has no exact decimals and no days: there they are texts, with all their digits.
    private static final Map<String, Names> NAMES = Map.of(
            "postgresql",
            new Names("text", "bigint", "numeric(%d, %d)", "double precision", "boolean", "date", "timestamp"),
            "mariadb",
            new Names("longtext", "bigint", "decimal(%d, %d)", "double", "boolean", "date", "datetime(6)"),
            "sqlite",
            new Names("TEXT", "INTEGER", "TEXT", "REAL", "INTEGER", "TEXT", "TEXT"),
            "duckdb",
            new Names("VARCHAR", "BIGINT", "DECIMAL(%d, %d)", "DOUBLE", "BOOLEAN", "DATE", "TIMESTAMP"));

    private static final int MICROS = 6;

    /// The type of a column in a new table.
    String of(Type type) {
        Names names = Objects.requireNonNull(NAMES.get(engine));
        return switch (type) {
            case Type.Int _ -> names.integer();
            case Type.Decimal(int precision, int scale) -> String.format(names.decimal(), precision, scale);
            case Type.Num _ -> names.number();
            case Type.Bool _ -> names.truth();
            case Type.Date _ -> names.day();
            case Type.Timestamp _ -> names.moment();
            default -> names.text();
        };
    }

    /// What a column of a new table cannot hold; empty where it holds everything.
    Optional<Limit> limit(Field field) {
        String key = DuckSession.name(field.key());
        return switch (field.column().type()) {
            case Type.Text _
            when !engine.equals("duckdb") && !engine.equals("mariadb") ->
                Optional.of(new Limit("contains(" + key + ", chr(0))", "a text without the sign U+0000"));
            case Type.Date _, Type.Timestamp _
            when engine.equals("mariadb") ->
                Optional.of(new Limit("year(" + key + ") NOT BETWEEN 1000 AND 9999", "a day from 1000 to 9999"));
            case Type.Date _, Type.Timestamp _
            when !engine.equals("duckdb") ->
                Optional.of(new Limit("year(" + key + ") NOT BETWEEN 1 AND 9999", "a day from 0001 to 9999"));
            default -> Optional.empty();
        };
    }

    /// What a column that is there cannot hold; null where the types do not meet at all.
    @Nullable
    Limit limit(Field field, Known there) {
        String key = DuckSession.name(field.key());
        String nothing = there.needed() ? " OR " + key + " IS NULL" : "";
        String more = limit(field).map(l -> "(" + l.condition() + ")").orElse("false");
        String rule = engine.equals("sqlite") ? ofSqlite(field, there) : rule(field, there, key);
        return rule == null
                ? null
                : new Limit(
                        more + " OR (" + rule + ")" + nothing,
                        there.shown()
                                + (isSized(there)
                                        ? "(" + there.size() + (there.digits() > 0 ? ", " + there.digits() : "") + ")"
                                        : rule.startsWith("microsecond") ? "(" + places(there) + ")" : "")
                                + (there.needed() ? " not null" : ""));
    }

    private static boolean isSized(Known there) {
        return there.size() < 100_000
                && (isText(there) && there.jdbc() != java.sql.Types.LONGVARCHAR || isExact(there));
    }

    private static boolean isText(Known there) {
        return Set.of(
                        java.sql.Types.CHAR,
                        java.sql.Types.VARCHAR,
                        java.sql.Types.LONGVARCHAR,
                        java.sql.Types.NCHAR,
                        java.sql.Types.NVARCHAR,
                        java.sql.Types.CLOB)
                .contains(there.jdbc());
    }

    private static boolean isExact(Known there) {
        return there.jdbc() == java.sql.Types.NUMERIC || there.jdbc() == java.sql.Types.DECIMAL;
    }

    /// By the declared type, as SQLite turns texts into numbers where it says so.
    private static @Nullable String ofSqlite(Field field, Known there) {
        String declared = there.type().toUpperCase(Locale.ROOT);
        boolean text = declared.matches(".*(CHAR|CLOB|TEXT).*") || declared.isEmpty() || declared.contains("BLOB");
        boolean whole = declared.contains("INT") || declared.contains("BOOL");
        boolean real = declared.matches(".*(REAL|FLOA|DOUB).*");
        return switch (field.column().type()) {
            case Type.Int _, Type.Bool _ -> whole ? "false" : null;
            case Type.Num _ -> real ? "false" : null;
            default -> text ? "false" : null;
        };
    }

    private @Nullable String rule(Field field, Known there, String key) {
        return switch (field.column().type()) {
            case Type.Text _ -> isText(there) ? length(there, key) : null;
            case Type.Int _ -> whole(there, key);
            case Type.Decimal _ -> exact(there, key);
            case Type.Num _ -> there.jdbc() == java.sql.Types.DOUBLE ? "false" : null;
            case Type.Bool _ ->
                Set.of(java.sql.Types.BOOLEAN, java.sql.Types.BIT, java.sql.Types.TINYINT)
                                .contains(there.jdbc())
                        ? "false"
                        : null;
            case Type.Date _ -> there.jdbc() == java.sql.Types.DATE ? "false" : null;
            case Type.Timestamp _ ->
                there.jdbc() == java.sql.Types.TIMESTAMP
                                && !there.type().toLowerCase(Locale.ROOT).contains("tz")
                        ? finer(there, key)
                        : null;
            default -> null;
        };
    }

    /// Fractions of a second with more digits than a column of a server keeps.
    private String finer(Known there, String key) {
        int digits = places(there);
        return digits >= MICROS
                ? "false"
                : "microsecond(" + key + ") % " + (int) Math.pow(10, MICROS - digits) + " <> 0";
    }

    /// The digits of a fraction of a second that a column keeps: MariaDB tells them by the length of the text.
    private int places(Known there) {
        return switch (engine) {
            case "postgresql" -> there.digits();
            case "mariadb" -> Math.max(0, there.size() - "2026-02-07 10:12:00.".length());
            default ->
                switch (there.type().toUpperCase(Locale.ROOT)) {
                    case "TIMESTAMP_S" -> 0;
                    case "TIMESTAMP_MS" -> 3;
                    default -> MICROS;
                };
        };
    }

    /// Long texts of MariaDB are bounded by bytes, others by characters.
    private static String length(Known there, String key) {
        if (there.size() <= 0 || there.size() == Integer.MAX_VALUE) {
            return "false";
        }
        return (there.jdbc() == java.sql.Types.LONGVARCHAR ? "strlen(" : "length(") + key + ") > " + there.size();
    }

    private static @Nullable String whole(Known there, String key) {
        return switch (there.jdbc()) {
            case java.sql.Types.BIGINT -> "false";
            case java.sql.Types.INTEGER -> key + " NOT BETWEEN -2147483648 AND 2147483647";
            case java.sql.Types.SMALLINT -> key + " NOT BETWEEN -32768 AND 32767";
            case java.sql.Types.TINYINT -> key + " NOT BETWEEN -128 AND 127";
            case java.sql.Types.NUMERIC, java.sql.Types.DECIMAL -> exact(there, key);
            default -> null;
        };
    }

    private static @Nullable String exact(Known there, String key) {
        if (!isExact(there)) {
            String bounds = whole(there, key);
            return bounds == null ? null : key + " <> round(" + key + ", 0) OR " + bounds;
        }
        if (there.size() <= 0 || there.size() > 1000) {
            return "false";
        }
        int before = Math.min(38, there.size() - there.digits());
        return "abs(" + key + ") >= 1e" + before + " OR round(" + key + ", " + there.digits() + ") <> " + key;
    }
}
