package memberid

import "strings"

// Indexer is what answers to brackets behind an object, as our pages call it.
const Indexer = "this[]"

// operators are the names of operators in identifiers, and what code calls them.
var operators = map[string]string{
	"op_Addition": "operator +", "op_Subtraction": "operator -", "op_Multiply": "operator *", "op_Division": "operator /", "op_Modulus": "operator %",
	"op_Equality": "operator ==", "op_Inequality": "operator !=", "op_LessThan": "operator <", "op_GreaterThan": "operator >", "op_LessThanOrEqual": "operator <=",
	"op_GreaterThanOrEqual": "operator >=", "op_BitwiseAnd": "operator &", "op_BitwiseOr": "operator |", "op_ExclusiveOr": "operator ^", "op_LogicalNot": "operator !",
	"op_OnesComplement": "operator ~", "op_Increment": "operator ++", "op_Decrement": "operator --",
	"op_LeftShift": "operator <<", "op_RightShift": "operator >>", "op_UnsignedRightShift": "operator >>>", "op_True": "operator true", "op_False": "operator false",
	"op_Implicit": "implicit operator", "op_Explicit": "explicit operator", "Item": Indexer,
}

// unary are the names of operators that have another one where they stand before one operand.
var unary = map[string]string{"op_UnaryPlus": "operator +", "op_UnaryNegation": "operator -"}

var ofOperator, ofUnary = reversed(operators), reversed(unary)

func reversed(names map[string]string) map[string]string {
	out := make(map[string]string, len(names))
	for id, code := range names {
		out[code] = id
	}
	return out
}

// Spoken is what code calls a member that identifiers spell in their own way, or "".
func Spoken(name string) string {
	if plain, checked := strings.CutPrefix(name, "op_Checked"); checked {
		switch code := Spoken("op_" + plain); {
		case strings.HasPrefix(code, "operator "):
			return strings.Replace(code, "operator ", "operator checked ", 1)
		case code != "":
			return code + " checked"
		}
	}
	if code := operators[name]; code != "" {
		return code
	}
	return unary[name]
}

// Spelled is how identifiers spell an operator or an indexer with so many parameters, or "".
func Spelled(code string, params int) string {
	if plain := strings.Replace(code, " checked", "", 1); plain != code {
		if id := Spelled(plain, params); id != "" {
			return "op_Checked" + strings.TrimPrefix(id, "op_")
		}
	}
	if id := ofUnary[code]; id != "" && params == 1 {
		return id
	}
	return ofOperator[code]
}
