package fixshelf.type;

/// A column of a table: its name as the source writes it, and the type of its values.
public record Column(String name, Type type) {}
