package fixshelf.language.checking;

import fixshelf.language.tree.Definition;
import fixshelf.type.Column;
import fixshelf.type.Type;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/// The names an expression may use, without regard to case, and the fixes it may call.
public final class Scope {
    /// What a name stands for. Only a parameter can be known when code is written.
    public enum Kind {
        PARAMETER,
        INTERMEDIATE,
        COLUMN
    }

    /// A name with the capitals of its declaration.
    public record Binding(String name, Type type, Kind kind) {}

    /// What a search for a fix found: its definition, or why there is none.
    public sealed interface Found {
        record Ready(Definition definition) implements Found {}

        record Broken(String why) implements Found {}

        record Cyclic(List<String> path) implements Found {}

        record Missing() implements Found {}
    }

    /// The fixes that may be called.
    public interface Fixes {
        Fixes NONE = new Fixes() {
            @Override
            public Found find(String name) {
                return new Found.Missing();
            }

            @Override
            public Collection<String> names() {
                return List.of();
            }
        };

        Found find(String name);

        Collection<String> names();
    }

    private final Map<String, Binding> bindings = new LinkedHashMap<>();
    private final Fixes fixes;

    public Scope(Fixes fixes) {
        this.fixes = fixes;
    }

    /// A scope in which the columns of a table are the names.
    public static Scope ofColumns(Fixes fixes, List<Column> columns) {
        Scope scope = new Scope(fixes);
        columns.forEach(c -> scope.add(new Binding(c.name(), c.type(), Kind.COLUMN)));
        return scope;
    }

    /// Adds a name; false when there is one already.
    public boolean add(Binding binding) {
        return bindings.putIfAbsent(binding.name().toLowerCase(Locale.ROOT), binding) == null;
    }

    public Optional<Binding> find(String name) {
        return Optional.ofNullable(bindings.get(name.toLowerCase(Locale.ROOT)));
    }

    public List<String> names() {
        return bindings.values().stream().map(Binding::name).toList();
    }

    public Fixes fixes() {
        return fixes;
    }
}
