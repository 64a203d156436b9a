import Markdown from 'react-markdown';
import remarkGfm from 'remark-gfm';

/** The text of a report, without pictures from elsewhere. */
export const ReportText = ({ text }: { text: string }) => (
  <Markdown remarkPlugins={[remarkGfm]} disallowedElements={['img']}>
    {text}
  </Markdown>
);
