package fixshelf.table;

import fixshelf.language.tree.Expr;
import fixshelf.type.Column;
import fixshelf.type.Type;

/// A column that stays itself when it is renamed, moved or given new values.
///
/// @param id its number within a job; the same lines give the same numbers again
/// @param declared the type that the source says of it, whose values are read as texts; unknown where it says none
public record Field(int id, Column column, Type declared) {
    public Field(int id, Column column) {
        this(id, column, Type.UNKNOWN);
    }

    public Field(int id, String name, Type type) {
        this(id, new Column(name, type));
    }

    public String name() {
        return column.name();
    }

    public Type type() {
        return column.type();
    }

    /// The name by which expressions over fields speak of it, and which it has in our own engine. No name of a user
    /// stands beside it there.
    public String key() {
        return "c" + id;
    }

    /// Its value, as an expression.
    public Expr.Name value() {
        return new Expr.Name(key(), type());
    }

    public Field named(String name) {
        return new Field(id, new Column(name, type()), declared);
    }

    public Field typed(Type type) {
        return new Field(id, new Column(name(), type), declared);
    }
}
