package fixshelf.table;

import fixshelf.type.Type;

/// What is made of the values of several rows. Missing values are passed over; of no value at all, a count is 0 and
/// everything else is missing.
public enum Aggregate {
    /// How many rows there are.
    ROWS,
    /// In how many rows there is a value.
    COUNT,
    /// How many different values there are.
    DISTINCT,
    /// The sum of whole or exact numbers; missing where it does not fit its type.
    SUM,
    /// The least value; texts go by their code points.
    LEAST,
    /// The greatest value; texts go by their code points.
    GREATEST,
    /// The texts with a separator between, in the order of the rows.
    LISTED;

    /// The type of the result over values of `of`.
    public Type result(Type of) {
        return switch (this) {
            case ROWS, COUNT, DISTINCT -> Type.INTEGER;
            case SUM ->
                of instanceof Type.Decimal(int _, int scale) ? new Type.Decimal(Math.max(28, scale), scale) : of;
            case LEAST, GREATEST, LISTED -> of;
        };
    }

    public boolean takes(Type type) {
        return switch (this) {
            case ROWS, COUNT, DISTINCT -> !type.isFixed();
            case SUM -> type.isNumeric();
            case LEAST, GREATEST -> !type.isFixed() && !type.equals(Type.BOOLEAN);
            case LISTED -> type.equals(Type.TEXT);
        };
    }
}
