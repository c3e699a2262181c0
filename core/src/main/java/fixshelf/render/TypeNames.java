package fixshelf.render;

import fixshelf.type.Type;

/// What an SQL language calls the types.
///
/// @param exact exact numbers, before their digits in brackets; empty where there are none
public record TypeNames(String text, String whole, String number, String truth, String day, String time, String exact) {
    /// The name of a type of single values.
    public String of(Type type) {
        return switch (type) {
            case Type.Text _, Type.Unknown _ -> text;
            case Type.Int _ -> whole;
            case Type.Num _ -> number;
            case Type.Bool _ -> truth;
            case Type.Date _ -> day;
            case Type.Timestamp _ -> time;
            case Type.Decimal(int precision, int scale) -> exact + "(" + precision + ", " + scale + ")";
            case Type.ListOf _, Type.Mapping _ -> throw new IllegalArgumentException("no single value: " + type);
        };
    }
}
