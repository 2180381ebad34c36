type Props = {
  pages: { hasNextPage: boolean; isFetchingNextPage: boolean; fetchNextPage: () => Promise<unknown> };
  /** What comes: *Show earlier batches*. */
  words: string;
};

/** The way to what a list has not fetched yet; nothing where all of it is there. */
export function FurtherPages({ pages: { hasNextPage, isFetchingNextPage, fetchNextPage }, words }: Props) {
  if (!hasNextPage) return null;
  return (
    <p className="p-3 text-center">
      <button type="button" className="btn btn-sm" disabled={isFetchingNextPage} onClick={() => void fetchNextPage()}>
        {words}
      </button>
    </p>
  );
}
