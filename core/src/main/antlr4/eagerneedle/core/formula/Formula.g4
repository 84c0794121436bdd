// The formula language of method sheets. A number and its unit are one token: 9.8123(4) m/s^2.
grammar Formula;

definition : (NAME '=')? expression EOF ;

expression
    : '(' expression ')'                                   # group
    | NAME '(' (argument (',' argument)*)? ')'             # call
    | NAME ('.' NAME)*                                     # name
    | QUANTITY                                             # quantity
    | TEXT                                                 # text
    | <assoc=right> expression '^' expression              # power
    | op=('-' | '+') expression                            # sign
    | expression op=('*' | '·' | '/') expression           # product
    | expression op=('+' | '-' | '−') expression           # sum
    | expression op=('<' | '<=' | '>' | '>=' | '==' | '!=') expression   # compare
    | 'not' expression                                     # negation
    | expression op='&' expression                         # logic
    | expression op='|' expression                         # logic
    ;

argument : (NAME ':')? expression ;

QUANTITY : NUMBER ('(' DIGIT+ ('.' DIGIT*)? ')')? EXPONENT? (BLANK* PLUSMINUS BLANK* NUMBER EXPONENT?)? (BLANK* UNIT | BLANK+ PER)?
         | '(' BLANK* '-'? NUMBER EXPONENT? BLANK* PLUSMINUS BLANK* NUMBER EXPONENT? BLANK* ')' EXPONENT? (BLANK* UNIT | BLANK+ PER)? ;
NAME     : LETTER (LETTER | DIGIT | '_')* ;
TEXT     : '"' ~["\r\n]* '"' | '\'' ~['\r\n]* '\'' ;
SPACE    : [ \t\r\n]+ -> skip ;

fragment NUMBER   : DIGIT+ ('.' DIGIT*)? | '.' DIGIT+ ;
fragment PLUSMINUS : '±' | '+/-' | 'limit' BLANK ;
fragment EXPONENT : [eE] [+-]? DIGIT+ ;
fragment UNIT     : ATOM ([·/*] ATOM)* ;
fragment PER      : '1/' UNIT ;
fragment ATOM     : (LETTER | [°%]) (LETTER | [°%])* ('^' '-'? DIGIT+ | [⁻⁰¹²³⁴⁵⁶⁷⁸⁹]+)? ;
fragment BLANK    : [ \t] ;
fragment LETTER   : [\p{L}] ;
fragment DIGIT    : [0-9] ;
