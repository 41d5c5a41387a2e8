/** The demonstration: the made-up office of Quillhaven Marina, its records and its files. */
package org.zestyporter.demo;
