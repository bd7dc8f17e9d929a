import { putJourney, uniqueName } from '@tovel/core';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { useProject } from '../project/context';
import { Sheet } from '../shell/Sheet';
import { color } from '../theme/theme';
import { Button, Field } from '../ui/controls';
import type { Recorder } from './use_recorder';

/** Begins and ends the recording of a journey, and names it. */
export function Recording({ recorder, path }: { recorder: Recorder; path: string }) {
  const { app, session, base } = useProject();
  const navigate = useNavigate();
  const [isNaming, setNaming] = useState(false);
  const [name, setName] = useState('');
  const { journey, ended } = recorder;
  if (!journey) return <Button onPress={() => recorder.begin(path)}>Record a journey</Button>;
  const count = journey.steps.length;
  const isTaken = Object.values(app.journeys).some((other) => other.name === name.trim());
  const save = (): void => {
    if (!name.trim() || isTaken) return;
    const key = uniqueName('journey', (candidate) => !!app.journeys[candidate]);
    session.change(`Record ${name.trim()}`, putJourney(key, { ...journey, name: name.trim() }));
    recorder.stop();
    void navigate(`${base}/map?journey=${key}`);
  };
  return (
    <>
      <Button $kind="danger" isDisabled={!count} onPress={() => setNaming(true)}>
        {ended ? 'Recording ended' : 'Recording'} · {count} {count === 1 ? 'step' : 'steps'} · save
      </Button>
      <Button $kind="quiet" onPress={recorder.stop}>
        Discard
      </Button>
      {ended && (
        <span role="alert" style={{ color: color.red, maxWidth: 260 }}>
          {ended}
        </span>
      )}
      {isNaming && (
        <Sheet title="Name the journey" onClose={() => setNaming(false)}>
          <form
            onSubmit={(event) => {
              event.preventDefault();
              save();
            }}
          >
            <Field
              label="Name"
              autoFocus
              value={name}
              onChange={setName}
              placeholder="First loan"
              problem={isTaken ? 'There is a journey of that name.' : null}
            />
            <Button type="submit" $kind="primary" isDisabled={!name.trim()} style={{ marginTop: 14 }}>
              Save {count} {count === 1 ? 'step' : 'steps'}
            </Button>
          </form>
        </Sheet>
      )}
    </>
  );
}
