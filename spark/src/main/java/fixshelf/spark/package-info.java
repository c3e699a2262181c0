/// Apache Spark in a process of its own, because it is large and wants a class path to itself.
///
/// What comes in: one line of JSON with a query on the standard input. What goes out: one line of JSON with its
/// rows, or with the error. The other end is `fixshelf.engine.SparkEngine`.
///
/// Read first: [SparkProcess].
package fixshelf.spark;
