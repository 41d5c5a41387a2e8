/** Takes runs back: what they added is removed, what they changed is put back to the value. */
package org.zestyporter.core.undo;
