/** Numbers that carry their unit in the type. Plain numbers live inside loops; brands stand at borders. */
declare const unit: unique symbol;
type Branded<U extends string> = number & { readonly [unit]: U };

export type Pascal = Branded<"Pa">;
export type Metre = Branded<"m">;
export type CubicMetre = Branded<"m3">;
export type CubicMetrePerSecond = Branded<"m3/s">;
export type Celsius = Branded<"degC">;
export type KilogramPerCubicMetre = Branded<"kg/m3">;
export type SquareMetrePerSecond = Branded<"m2/s">;
export type Ampere = Branded<"A">;
export type Volt = Branded<"V">;
export type SquareMetre = Branded<"m2">;

export const pascal = (value: number) => value as Pascal;
export const metre = (value: number) => value as Metre;
export const cubicMetre = (value: number) => value as CubicMetre;
export const cubicMetrePerSecond = (value: number) => value as CubicMetrePerSecond;
export const celsius = (value: number) => value as Celsius;
export const kilogramPerCubicMetre = (value: number) => value as KilogramPerCubicMetre;
export const squareMetrePerSecond = (value: number) => value as SquareMetrePerSecond;
export const ampere = (value: number) => value as Ampere;
export const volt = (value: number) => value as Volt;
export const squareMetre = (value: number) => value as SquareMetre;
