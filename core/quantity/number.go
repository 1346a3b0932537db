package quantity

import (
	"errors"
	"math"
	"strconv"
	"strings"
	"unicode/utf8"
)

var (
	errNoNumber  = errors.New("start with a number, like 63 mm or 1-1/8 in")
	errAmbiguous = errors.New("a comma before three digits could mean thousands or a decimal; write 1250 or 1.250")
	errTooBig    = errors.New("this number is not finite; write an ordinary number")
	errBeyond    = errors.New("this is more than anything that is measured at a bench")
	errZeroBelow = errors.New("a fraction cannot have zero below the line")
	errMixed     = errors.New("a whole number before a fraction, like 1-1/8")
)

// beyond is more, in base units, than anything that stands on a bench: the largest there are
// pressures, some 10^9 Pa, and stiffnesses.
const beyond = 1e15

// splitNumber cuts the leading number off s and returns its value and the rest.
// Accepted: 0.125  1e-3  1/8  1-1/8  1 1/8  1½  2,5 and a leading sign.
func splitNumber(s string) (value float64, rest string, err error) {
	sign := 1.0
	body := s
	if strings.HasPrefix(body, "-") || strings.HasPrefix(body, "−") {
		sign = -1
		body = strings.TrimPrefix(strings.TrimPrefix(body, "-"), "−")
	} else if strings.HasPrefix(body, "+") {
		body = body[1:]
	}
	if part, n := vulgarFraction(body); n > 0 {
		return sign * part, body[n:], nil
	}
	first, n, isInt, err := scanDecimal(body)
	if err != nil {
		return 0, s, err
	}
	rest = body[n:]
	if part, n, between := vulgarTail(rest); n > 0 {
		if !isInt {
			return 0, s, errMixed
		}
		return sign * (first + part), rest[between+n:], nil
	}
	// A fraction: 1/8
	if isInt {
		if below, m, ok := fractionTail(rest); ok {
			if below == 0 {
				return 0, s, errZeroBelow
			}
			return sign * first / below, rest[m:], nil
		}
	}
	// A mixed number: 1-1/8 or 1 1/8
	if tail := strings.TrimLeft(rest, " "); tail != "" {
		dashed := tail
		if tail[0] == '-' {
			dashed = tail[1:]
		}
		if (dashed != tail || tail != rest) && dashed != "" && isDigit(dashed[0]) {
			above, k, aboveInt, err := scanDecimal(dashed)
			if err == nil && aboveInt {
				if below, m, ok := fractionTail(dashed[k:]); ok {
					if !isInt {
						return 0, s, errMixed
					}
					if below == 0 {
						return 0, s, errZeroBelow
					}
					return sign * (first + above/below), dashed[k+m:], nil
				}
			}
		}
	}
	return sign * first, rest, nil
}

// vulgar are the fractions that keyboards put in place of 1/2 and its like.
var vulgar = map[rune]float64{
	'½': 1. / 2, '¼': 1. / 4, '¾': 3. / 4, '⅛': 1. / 8, '⅜': 3. / 8, '⅝': 5. / 8, '⅞': 7. / 8,
	'⅓': 1. / 3, '⅔': 2. / 3,
}

// vulgarFraction reads a single-character fraction at the start of s and gives
// its length, 0 when there is none.
func vulgarFraction(s string) (part float64, n int) {
	if s == "" || s[0] < utf8.RuneSelf {
		return 0, 0
	}
	r, size := utf8.DecodeRuneInString(s)
	if v, ok := vulgar[r]; ok {
		return v, size
	}
	return 0, 0
}

// vulgarTail is vulgarFraction behind blanks or one dash; between is their length.
func vulgarTail(s string) (part float64, n, between int) {
	tail := strings.TrimLeft(s, " ")
	tail = strings.TrimPrefix(tail, "-")
	part, n = vulgarFraction(tail)
	return part, n, len(s) - len(tail)
}

// fractionTail reads "/8" and gives 8 and its length.
func fractionTail(s string) (below float64, n int, ok bool) {
	if len(s) < 2 || s[0] != '/' || !isDigit(s[1]) {
		return 0, 0, false
	}
	v, k, isInt, err := scanDecimal(s[1:])
	if err != nil || !isInt {
		return 0, 0, false
	}
	return v, k + 1, true
}

func isDigit(c byte) bool { return c >= '0' && c <= '9' }

// scanDecimal reads an unsigned decimal number at the start of s.
func scanDecimal(s string) (v float64, n int, isInt bool, err error) {
	i := 0
	for i < len(s) && isDigit(s[i]) {
		i++
	}
	whole := i
	isInt = true
	comma := false
	if i < len(s) && (s[i] == '.' || s[i] == ',') {
		comma = s[i] == ','
		j := i + 1
		for j < len(s) && isDigit(s[j]) {
			j++
		}
		digits := j - i - 1
		if digits > 0 || (whole > 0 && !comma) {
			if comma {
				if whole == 0 {
					return 0, 0, false, errNoNumber
				}
				grouped := digits == 3 && whole <= 3 && s[0] != '0'
				if grouped || (j < len(s) && (s[j] == ',' || s[j] == '.')) {
					return 0, 0, false, errAmbiguous
				}
			}
			isInt = false
			i = j
		}
	}
	if i == 0 || (whole == 0 && isInt) {
		return 0, 0, false, errNoNumber
	}
	if i < len(s) && (s[i] == 'e' || s[i] == 'E') {
		j := i + 1
		if j < len(s) && (s[j] == '+' || s[j] == '-') {
			j++
		}
		if j < len(s) && isDigit(s[j]) {
			for j < len(s) && isDigit(s[j]) {
				j++
			}
			isInt = false
			i = j
		}
	}
	text := s[:i]
	if comma {
		text = strings.Replace(text, ",", ".", 1)
	}
	v, perr := strconv.ParseFloat(text, 64)
	if perr != nil || math.IsInf(v, 0) || math.IsNaN(v) {
		return 0, 0, false, errTooBig
	}
	return v, i, isInt, nil
}
