package fixshelf.table;

import fixshelf.type.Column;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/// The fields of a table, in order. No two have the same name, without regard to case.
public final class Shape {
    private final List<Field> fields;
    private @Nullable Map<Integer, Field> byId;
    private @Nullable Map<String, Field> byName;

    public Shape(List<Field> fields) {
        this.fields = List.copyOf(fields);
    }

    public List<Field> fields() {
        return fields;
    }

    /// An exact name first, else the first without regard to case.
    public Optional<Field> find(String name) {
        Map<String, Field> names = byName;
        if (names == null) {
            names = new HashMap<>();
            for (Field field : fields) {
                names.putIfAbsent("=" + field.name(), field);
                names.putIfAbsent(field.name().toLowerCase(Locale.ROOT), field);
            }
            byName = names;
        }
        Field exact = names.get("=" + name);
        return Optional.ofNullable(exact != null ? exact : names.get(name.toLowerCase(Locale.ROOT)));
    }

    public Optional<Field> find(int id) {
        Map<Integer, Field> ids = byId;
        if (ids == null) {
            ids = new HashMap<>();
            for (Field field : fields) {
                ids.put(field.id(), field);
            }
            byId = ids;
        }
        return Optional.ofNullable(ids.get(id));
    }

    public boolean has(Field field) {
        return find(field.id()).isPresent();
    }

    public List<Column> columns() {
        return fields.stream().map(Field::column).toList();
    }

    public List<String> names() {
        return fields.stream().map(Field::name).toList();
    }

    /// With these fields in place of those of the same number; those that are not there are added at the end.
    Shape with(List<Field> changed) {
        Map<Integer, Field> all = new LinkedHashMap<>();
        fields.forEach(f -> all.put(f.id(), f));
        changed.forEach(f -> all.put(f.id(), f));
        return new Shape(new ArrayList<>(all.values()));
    }

    @Override
    public boolean equals(@Nullable Object other) {
        return other instanceof Shape shape && fields.equals(shape.fields);
    }

    @Override
    public int hashCode() {
        return fields.hashCode();
    }

    @Override
    public String toString() {
        return fields.toString();
    }
}
