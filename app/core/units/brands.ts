/** Numbers that carry their unit in the type. Plain numbers live inside loops; brands stand at borders. */
declare const unit: unique symbol;
type Branded<U extends string> = number & { readonly [unit]: U };

export type Pascal = Branded<"Pa">;
export type Metre = Branded<"m">;
export type Celsius = Branded<"degC">;
export type KilogramPerCubicMetre = Branded<"kg/m3">;
export type Ampere = Branded<"A">;
export type Volt = Branded<"V">;
export type SquareMetre = Branded<"m2">;

export const pascal = (value: number) => value as Pascal;
export const metre = (value: number) => value as Metre;
export const celsius = (value: number) => value as Celsius;
export const kilogramPerCubicMetre = (value: number) => value as KilogramPerCubicMetre;
export const ampere = (value: number) => value as Ampere;
export const volt = (value: number) => value as Volt;
export const squareMetre = (value: number) => value as SquareMetre;
