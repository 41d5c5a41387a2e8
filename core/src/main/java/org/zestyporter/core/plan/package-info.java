/** The plan document, its JSON, its checks, and drafting a plan for a file. */
package org.zestyporter.core.plan;
