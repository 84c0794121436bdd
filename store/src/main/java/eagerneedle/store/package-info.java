/** What is kept in files, each kind in a room of its own: bench files, the stockroom, files from elsewhere, exports. */
package eagerneedle.store;
