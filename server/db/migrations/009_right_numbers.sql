-- Quieten: the airflow as it was found, and kelvin that may be given away; fumes: the room behind mixes for itself.
ALTER TABLE job
  ADD COLUMN kept_flow_m3s double precision CHECK (kept_flow_m3s >= 0),
  ADD COLUMN give_rise_k double precision CHECK (give_rise_k BETWEEN 0 AND 50),
  ADD COLUMN room_mixing double precision CHECK (room_mixing BETWEEN 1 AND 10);
-- A fan's noise claim may be a sound power.
ALTER TABLE fan ADD COLUMN noise_is_power boolean NOT NULL DEFAULT false;
-- A window that stayed behind when another nominal voltage was typed: the kind's own holds from now on.
UPDATE power_source SET low_v = NULL, high_v = NULL WHERE nominal_v < low_v OR nominal_v > high_v;
ALTER TABLE power_source
  ADD COLUMN wire_mm2 double precision CHECK (wire_mm2 BETWEEN 0.05 AND 10),
  ADD COLUMN fuse_family text CHECK (fuse_family IN ('iec60127', 'ul248', 'blade')),
  DROP CONSTRAINT IF EXISTS power_source_usb_kind_check,
  ADD CONSTRAINT power_source_usb_kind_check CHECK (usb_kind IN ('usb2-unconfigured', 'usb2-configured', 'usb3-unconfigured', 'usb3-configured', 'bc12', 'typec-1A5', 'typec-3A', 'pd-15W', 'pd-27W', 'pd-45W', 'pd-100W'));
ALTER TABLE power_converter ADD COLUMN diode_kind text NOT NULL DEFAULT 'silicon' CHECK (diode_kind IN ('silicon', 'schottky'));
ALTER TABLE feed_part
  ADD COLUMN wire_mm2 double precision CHECK (wire_mm2 BETWEEN 0.05 AND 10),
  ADD COLUMN led_colour text CHECK (led_colour IN ('red', 'yellow', 'green', 'blue', 'white'));
ALTER TABLE battery ADD COLUMN lead_kind text NOT NULL DEFAULT 'agm' CHECK (lead_kind IN ('agm', 'flooded'));
-- What a reading is worth travels with it.
ALTER TABLE reading ADD COLUMN half_width double precision CHECK (half_width BETWEEN 0 AND 1e6);
ALTER TABLE calibration ADD COLUMN flow_doubt double precision CHECK (flow_doubt BETWEEN 0 AND 2);
ALTER TABLE path_element ADD COLUMN head_pa double precision CHECK (head_pa BETWEEN 0 AND 2000);
