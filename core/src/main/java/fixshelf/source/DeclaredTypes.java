package fixshelf.source;

import fixshelf.type.Type;
import java.sql.ResultSetMetaData;
import java.sql.SQLException;
import java.sql.Types;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;

/// The types that a database, or a Parquet file, says of the columns of a query: those whose values, written as texts
/// ([SqlText]), all are values of a type here. Of any other column it says text: a time with a zone, a decimal without
/// digits that are said, a list, bytes.
public final class DeclaredTypes {
    /// What drivers call by the name of another type, and writes its values otherwise.
    private static final Set<String> OTHERWISE =
            Set.of("bit", "money", "timestamptz", "timestamp with time zone", "timestamp_ns", "year", "oid", "name");

    private DeclaredTypes() {}

    /// The types of all columns, in their order.
    public static List<Type> of(ResultSetMetaData meta) throws SQLException {
        List<Type> types = new ArrayList<>();
        for (int i = 1; i <= meta.getColumnCount(); i++) {
            types.add(type(meta, i));
        }
        return types;
    }

    private static Type type(ResultSetMetaData meta, int column) throws SQLException {
        String name = meta.getColumnTypeName(column).toLowerCase(Locale.ROOT);
        if (OTHERWISE.contains(name)) {
            return Type.TEXT;
        }
        if (name.equals("ubigint") || name.equals("bigint unsigned")) {
            return new Type.Decimal(20, 0);
        }
        if (name.equals("utinyint") || name.equals("usmallint") || name.equals("uinteger")) {
            return Type.INTEGER;
        }
        return switch (meta.getColumnType(column)) {
            case Types.TINYINT, Types.SMALLINT, Types.INTEGER, Types.BIGINT -> Type.INTEGER;
            case Types.REAL, Types.FLOAT, Types.DOUBLE -> Type.NUMBER;
            case Types.DECIMAL, Types.NUMERIC -> decimal(meta.getPrecision(column), meta.getScale(column));
            case Types.BOOLEAN -> Type.BOOLEAN;
            case Types.BIT -> truth(meta.getColumnClassName(column));
            case Types.DATE -> Type.DATE;
            case Types.TIMESTAMP -> Type.TIMESTAMP;
            default -> Type.TEXT;
        };
    }

    /// What some drivers call a bit is true or false for them.
    private static Type truth(String className) {
        return className.equals(Boolean.class.getName()) ? Type.BOOLEAN : Type.TEXT;
    }

    private static Type decimal(int precision, int scale) {
        boolean isOurs = precision >= 1 && precision <= 38 && scale >= 0 && scale <= precision;
        return isOurs ? new Type.Decimal(precision, scale) : Type.TEXT;
    }

    /// Of SQLite, which keeps any value in any column: whole and floating numbers only, as it has no other types whose
    /// values are written in one way.
    static List<Type> ofSqlite(ResultSetMetaData meta) throws SQLException {
        List<Type> types = new ArrayList<>();
        for (int i = 1; i <= meta.getColumnCount(); i++) {
            types.add(
                    switch (meta.getColumnTypeName(i).toLowerCase(Locale.ROOT)) {
                        case "int", "integer", "bigint", "smallint", "tinyint" -> Type.INTEGER;
                        case "real", "double", "float", "double precision" -> Type.NUMBER;
                        default -> Type.TEXT;
                    });
        }
        return types;
    }
}
