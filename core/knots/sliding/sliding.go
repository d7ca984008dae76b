// Package sliding ties the sliding pair.
package sliding
