/** The chart with all that is kept of it, as one file. */
import { callSongbook } from '$lib/state/call';
import { saveFile } from './file';

/** `isWhole`: with takes and log, for another machine of one's own. */
export async function saveWholeChart(id: string, title: string, isWhole: boolean): Promise<void> {
  const file = await callSongbook<object>(`/${id}/file${isWhole ? '?with=all' : ''}`, 'nothing was saved');
  const text = `${JSON.stringify(file, null, 1)}\n`;
  saveFile(new Blob([text], { type: 'application/json' }), title, 'corvel.json');
}
