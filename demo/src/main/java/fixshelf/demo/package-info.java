/// The demo shelf: the Brindle Valley mending rooms.
///
/// [DemoShelf] puts the shelf and its data into a folder. [Visit] makes up what really happened, from a seed, so that
/// a test can tell whether cleaning found it again; [Room] writes it down the way each room does, with its own mess.
/// All people, places, parts and numbers are made up.
@NullMarked
package fixshelf.demo;

import org.jspecify.annotations.NullMarked;
