/** A number one presses to call, shown as it was written. */
export function PhoneLink({ phone }: { phone: string }) {
  const digits = phone.replace(/(?:x|ext\.?).*$/i, '').replace(/[^0-9+]/g, '');
  return <a href={`tel:${digits}`}>{phone}</a>;
}
