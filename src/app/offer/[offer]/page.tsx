import { OfferPage } from '@/ui/meetings/offer-page.tsx';

export default async function Offer({ params }: { params: Promise<{ offer: string }> }) {
  return <OfferPage offer={(await params).offer} />;
}
