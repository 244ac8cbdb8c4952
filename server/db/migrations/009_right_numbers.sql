-- Quieten: the airflow as it was found, and kelvin that may be given away; fumes: the room behind mixes for itself.
ALTER TABLE job
  ADD COLUMN kept_flow_m3s double precision CHECK (kept_flow_m3s >= 0),
  ADD COLUMN give_rise_k double precision CHECK (give_rise_k BETWEEN 0 AND 50),
  ADD COLUMN room_mixing double precision CHECK (room_mixing BETWEEN 1 AND 10);
-- A fan's noise claim may be a sound power.
ALTER TABLE fan ADD COLUMN noise_is_power boolean NOT NULL DEFAULT false;
